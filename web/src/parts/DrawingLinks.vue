<script setup lang="ts">
import { computed } from 'vue';

import { useStudio } from '@/api/useStudio';
import { vSay } from '@/said/say';

import { useDocuments } from './useDocuments';

/** Drawings at true scale to take along, once the program that makes them is there. */
const { of, part, what } = defineProps<{
  /** Where they are asked for: `/api/v1/cuttings/…/drawings`. */
  of: string;
  /** One of them; all in a PDF when left out. */
  part?: number;
  /** What is drawn, as `sheet 3`. */
  what: string;
}>();

const { ready } = useDocuments();
const one = computed(() => (part === undefined ? '' : `&part=${part}`));
const { studio } = useStudio();
const TILES = {
  a4: [
    { format: 'pdf', paper: 'a4', text: 'A4 tiles' },
    { format: 'pdf', paper: 'a3', text: 'A3 tiles' },
  ],
  letter: [
    { format: 'pdf', paper: 'letter', text: 'Letter tiles' },
    { format: 'pdf', paper: 'tabloid', text: '11 × 17 in tiles' },
  ],
} as const;
const links = computed(() => [
  ...TILES[studio.value?.manners.paper ?? 'a4'],
  { format: 'pdf', paper: 'sheet', text: 'one page' },
  { format: 'svg', paper: 'sheet', text: 'SVG' },
  { format: 'dxf', paper: 'sheet', text: 'DXF' },
]);
</script>

<template>
  <p v-if="ready === false" v-say class="soft no-print" data-test="no-drawings">
    Drawings to print are not ready yet: the program that makes them is still being built.
  </p>
  <nav v-else-if="ready" class="links no-print" :aria-label="`Drawings of ${what} at true scale`">
    <span>True scale:</span>
    <a
      v-for="link in links"
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
