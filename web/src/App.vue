<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { defineAsyncComponent, ref, watch } from 'vue';
import type { Ref } from 'vue';
import { useRouter } from 'vue-router';

import { silent } from './api/patience';
import { signedOut } from './api/signedOut';
import { useAsking } from './asking/ask';
import MaterialPatterns from './drawing/MaterialPatterns.vue';
import DemoBand from './frame/DemoBand.vue';
import { partMissing, partPending } from './frame/parts';
import PartMissing from './frame/PartMissing.vue';
import { useWindowTitle } from './frame/title';
import TopStrip from './frame/TopStrip.vue';
import { useEscapeFromFields, useKeys } from './keys/useKeys';
import { sendWaiting } from './photographs/waiting';
import { useSaid } from './said/say';
import { useUnits } from './units/useUnits';

// Dialogs come when they are asked for: what they are made with is no part of the first view.
const AskDialog = defineAsyncComponent(() => import('./asking/AskDialog.vue'));
const HelpPanel = defineAsyncComponent(() => import('./help/HelpPanel.vue'));
const SignIn = defineAsyncComponent(() => import('./frame/SignIn.vue'));
const { open: asked } = useAsking();

const router = useRouter();
const units = useUnits();
const helpShown = ref(false);
/** Whether something was ever so: a dialog that was opened once stays, so that it closes as it should. */
function ever(now: Readonly<Ref<unknown>>): Ref<boolean> {
  const was = ref(Boolean(now.value));
  watch(now, (is) => (was.value ||= Boolean(is)));
  return was;
}
const [everSignedOut, everAsked, everHelp] = [ever(signedOut), ever(asked), ever(helpShown)];

const { aloud } = useSaid();
useWindowTitle();
// What was photographed while the server was away is on its way as soon as a page is open.
void sendWaiting();
useEventListener(window, 'online', () => void sendWaiting());

useEscapeFromFields();
useKeys({
  n: () => void router.push('/shipments/new'),
  u: units.next,
  p: () => window.print(),
  '?': () => {
    helpShown.value = true;
  },
});
</script>

<template>
  <a class="skip" href="#main">Skip to the page itself</a>
  <MaterialPatterns />
  <TopStrip @help="helpShown = true" />
  <DemoBand />
  <p v-if="silent" class="silent no-print" role="status" data-test="silent">
    The server does not answer. Nothing that you typed is lost: it is kept here and saved once it does.
  </p>
  <p v-else-if="partPending" class="silent no-print" role="status" data-test="part-pending">Loading…</p>
  <main id="main" tabindex="-1">
    <PartMissing v-if="partMissing" />
    <RouterView />
  </main>
  <SignIn v-if="everSignedOut" />
  <AskDialog v-if="everAsked" />
  <HelpPanel v-if="everHelp" v-model="helpShown" />
  <p class="visually-hidden" role="status" aria-live="polite" data-test="aloud">{{ aloud }}</p>
</template>

<style scoped>
.silent {
  position: fixed;
  right: 0;
  bottom: var(--foot);
  left: 0;
  z-index: 30;
  margin: 0;
  padding: 8px 20px;
  border-top: 2px solid var(--peat);
  background: var(--paper);
  font-weight: 600;
}
</style>
