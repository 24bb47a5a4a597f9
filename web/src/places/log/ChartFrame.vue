<script setup lang="ts">
import type { Chart } from './chart';

/** The frame of a chart: lines across at the ticks, with their numbers, and a word below. */
const { of, says, called } = defineProps<{
  of: Chart;
  /** What the numbers at the foot and at the left are. */
  says: string;
  /** What the whole shows, for who can't see it. */
  called: string;
}>();
</script>

<template>
  <svg :viewBox="`0 0 ${of.width} ${of.height}`" role="img" :aria-label="called">
    <g v-for="tick in of.ticks" :key="tick.value">
      <line :x1="of.left" :x2="of.right" :y1="tick.y" :y2="tick.y" class="grid" />
      <text :x="of.left - 6" :y="tick.y + 5" text-anchor="end">{{ tick.value }}</text>
    </g>
    <slot />
    <text :x="of.right" :y="of.height - 6" text-anchor="end">{{ says }}</text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}
svg :deep(text) {
  fill: var(--peat-soft);
  font-size: var(--drawn);
  font-variant-numeric: tabular-nums;
}
.grid {
  stroke: var(--sedge);
}
</style>
