<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { ref } from 'vue';

import { vSay } from '@/said/say';

import { pageRenewed, tryAgain } from './parts';

/** A part of the page can't be loaded: the server is away, or another build of it was started. */
const busy = ref(false);
const away = ref(false);
async function again(): Promise<void> {
  busy.value = true;
  away.value = !(await tryAgain());
  busy.value = false;
}
</script>

<template>
  <div class="notice missing no-print" data-test="part-missing">
    <p v-if="pageRenewed" v-say>Hummock was renewed. Reload the page to go on; what you typed is kept.</p>
    <p v-else v-say>
      This part of the page can’t be loaded{{ away ? ': the server is still away' : '' }}. Your changes are
      kept.
    </p>
    <BButton variant="primary" :disabled="busy" @click="again">
      {{ pageRenewed ? 'Reload' : 'Try again' }}
    </BButton>
  </div>
</template>

<style scoped>
.missing {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  margin: 8px 20px;
}
p {
  margin: 0;
}
</style>
