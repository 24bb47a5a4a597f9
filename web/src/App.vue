<script setup lang="ts">
import { ref } from 'vue';
import { useRouter } from 'vue-router';

import MaterialPatterns from './drawing/MaterialPatterns.vue';
import SignIn from './frame/SignIn.vue';
import TopStrip from './frame/TopStrip.vue';
import KeysPanel from './keys/KeysPanel.vue';
import { useKeys } from './keys/useKeys';
import { useUnits } from './units/useUnits';

const router = useRouter();
const units = useUnits();
const keysShown = ref(false);

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
  <MaterialPatterns />
  <TopStrip @keys="keysShown = true" />
  <main>
    <RouterView />
  </main>
  <SignIn />
  <KeysPanel v-model="keysShown" />
</template>
