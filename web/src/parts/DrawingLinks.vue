<script setup lang="ts">
import { computed } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import { vSay } from '@/said/say';

/** Drawings at true scale to take along, once the program that makes them is there. */
const { of, part, what } = defineProps<{
  /** Where they are asked for: `/api/v1/cuttings/…/drawings`. */
  of: string;
  /** One of them; all in a PDF when left out. */
  part?: number;
  /** What is drawn, as `sheet 3`. */
  what: string;
}>();

const LOOK_EVERY_MS = 5000;
const { data } = useRead({
  queryKey: ['documents'],
  queryFn: ({ signal }) => answer(api.GET('/api/v1/documents', { signal })),
  refetchInterval: ({ state }) => (state.data?.ready === false ? LOOK_EVERY_MS : false),
});
const one = computed(() => (part === undefined ? '' : `&part=${part}`));
const LINKS = [
  { format: 'pdf', paper: 'a4', text: 'A4 tiles' },
  { format: 'pdf', paper: 'a3', text: 'A3 tiles' },
  { format: 'pdf', paper: 'sheet', text: 'one page' },
  { format: 'svg', paper: 'sheet', text: 'SVG' },
  { format: 'dxf', paper: 'sheet', text: 'DXF' },
] as const;
</script>

<template>
  <p v-if="data && !data.ready" v-say class="soft no-print" data-test="no-drawings">
    Drawings to print are not ready yet: the program that makes them is still being built.
  </p>
  <nav v-else-if="data" class="links no-print" :aria-label="`Drawings of ${what} at true scale`">
    <span>True scale:</span>
    <a
      v-for="link in LINKS"
      :key="link.text"
      :href="`${of}/${link.format}?paper=${link.paper}${one}`"
      :aria-label="`${what}, ${link.text}`"
      download
      >{{ link.text }}</a
    >
  </nav>
</template>

<style scoped>
.links {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
}
.links a {
  min-height: 44px;
  padding: 10px 0;
}
</style>
