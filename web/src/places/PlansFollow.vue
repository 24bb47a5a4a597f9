<script setup lang="ts">
import { computed } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import { vSay } from '@/said/say';

/** How far the plans on the bench have followed a change of the house. */
const { version } = defineProps<{
  /** Whatever changes with the house. */
  version: number;
}>();

const LOOK_EVERY_MS = 500;
const { data } = useRead({
  queryKey: computed(() => ['progress', version]),
  queryFn: ({ signal }) => answer(api.GET('/api/v1/studio/progress', { signal })),
  refetchInterval: ({ state }) => (state.data?.behind === 0 ? false : LOOK_EVERY_MS),
});
const behind = computed(() => data.value?.behind ?? 0);
const open = computed(() => data.value?.open ?? 0);
</script>

<template>
  <p v-if="behind > 0" v-say class="soft" data-test="plans-follow">
    The plans on the bench follow: {{ open - behind }} of {{ open }} done. One that you open is worked out
    first.
    <progress :max="open" :value="open - behind" />
  </p>
</template>
