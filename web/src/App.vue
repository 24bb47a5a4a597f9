<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { ref } from 'vue';
import { useRouter } from 'vue-router';

import { silent } from './api/patience';
import MaterialPatterns from './drawing/MaterialPatterns.vue';
import DemoBand from './frame/DemoBand.vue';
import { partMissing, partPending } from './frame/parts';
import PartMissing from './frame/PartMissing.vue';
import { useWindowTitle } from './frame/title';
import SignIn from './frame/SignIn.vue';
import TopStrip from './frame/TopStrip.vue';
import KeysPanel from './keys/KeysPanel.vue';
import { useKeys } from './keys/useKeys';
import { sendWaiting } from './photographs/waiting';
import { useSaid } from './said/say';
import { useUnits } from './units/useUnits';

const router = useRouter();
const units = useUnits();
const keysShown = ref(false);

const { aloud } = useSaid();
useWindowTitle();
// What was photographed while the server was away is on its way as soon as a page is open.
void sendWaiting();
useEventListener(window, 'online', () => void sendWaiting());

useKeys({
  n: () => void router.push('/shipments/new'),
  u: units.next,
  p: () => window.print(),
  '?': () => {
    keysShown.value = true;
  },
});
</script>

<template>
  <a class="skip" href="#main">Skip to the page itself</a>
  <MaterialPatterns />
  <TopStrip @keys="keysShown = true" />
  <DemoBand />
  <p v-if="silent" class="silent no-print" role="status" data-test="silent">
    The server does not answer. Nothing that you typed is lost: it is kept here and saved once it does.
  </p>
  <p v-else-if="partPending" class="silent no-print" role="status" data-test="part-pending">Loading…</p>
  <main id="main" tabindex="-1">
    <PartMissing v-if="partMissing" />
    <RouterView />
  </main>
  <SignIn />
  <KeysPanel v-model="keysShown" />
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
