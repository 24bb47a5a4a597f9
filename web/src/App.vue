<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { ref } from 'vue';
import { useRouter } from 'vue-router';

import MaterialPatterns from './drawing/MaterialPatterns.vue';
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
  <main id="main" tabindex="-1">
    <RouterView />
  </main>
  <SignIn />
  <KeysPanel v-model="keysShown" />
  <p class="visually-hidden" role="status" aria-live="polite" data-test="aloud">{{ aloud }}</p>
</template>
