<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core';
import { ref, watch } from 'vue';

import { answer, api } from '@/api/client';

/** How far the plans on the bench have followed a change of the house. */
const { version } = defineProps<{
  /** Whatever changes with the house. */
  version: number;
}>();

const LOOK_EVERY_MS = 500;
const behind = ref(0);
const open = ref(0);

const { pause, resume } = useIntervalFn(() => void look(), LOOK_EVERY_MS, { immediate: false });

async function look(): Promise<void> {
  const progress = await answer(api.GET('/api/v1/studio/progress')).catch(() => undefined);
  if (!progress) return;
  ({ behind: behind.value, open: open.value } = progress);
  if (behind.value === 0) pause();
}

watch(
  () => version,
  () => {
    resume();
    void look();
  },
  { immediate: true },
);
</script>

<template>
  <p v-if="behind > 0" class="soft" role="status" data-test="plans-follow">
    The plans on the bench follow: {{ open - behind }} of {{ open }} done. One that you open is worked out
    first.
    <progress :max="open" :value="open - behind" />
  </p>
</template>
