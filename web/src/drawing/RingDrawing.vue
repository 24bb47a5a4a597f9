<script setup lang="ts">
import { computed } from 'vue';

import { useUnits } from '@/units/useUnits';

/** A roll in the round and the triangular tube that would hold it, to one scale. */
const { inner, outer, tube, triangle } = defineProps<{
  inner: number;
  outer: number;
  tube: number;
  triangle: number;
}>();
const units = useUnits();

const ROOM = 180;
const MIDDLE = 110;
const drawn = computed(() => {
  const high = (triangle * Math.sqrt(3)) / 2;
  const scale = ROOM / Math.max(high, tube);
  const side = triangle * scale;
  const top = MIDDLE - (high * scale * 2) / 3 + 24;
  const foot = top + high * scale;
  return {
    inner: (inner / 2) * scale,
    outer: (outer / 2) * scale,
    tube: (tube / 2) * scale,
    corners: `${350},${top} ${350 + side / 2},${foot} ${350 - side / 2},${foot}`,
    middle: top + (high * scale * 2) / 3,
  };
});
</script>

<template>
  <svg
    viewBox="0 0 480 270"
    role="img"
    :aria-label="`The roll, ${units.length(outer)} thick, in a round tube of ${units.length(tube)} and in a triangular one of side ${units.length(triangle)}`"
  >
    <circle :cx="MIDDLE" :cy="MIDDLE" :r="drawn.tube" class="tube" />
    <circle :cx="MIDDLE" :cy="MIDDLE" :r="drawn.outer" class="roll" />
    <circle :cx="MIDDLE" :cy="MIDDLE" :r="drawn.inner" class="core" />
    <text :x="MIDDLE" :y="MIDDLE + 5" text-anchor="middle">{{ units.length(inner) }}</text>
    <text :x="MIDDLE" y="240" text-anchor="middle">round, {{ units.length(tube) }} inside</text>
    <polygon :points="drawn.corners" class="tube" />
    <circle cx="350" :cy="drawn.middle" :r="drawn.outer" class="roll" />
    <circle cx="350" :cy="drawn.middle" :r="drawn.inner" class="core" />
    <text x="350" y="260" text-anchor="middle">triangle, side {{ units.length(triangle) }}</text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}
.tube {
  fill: var(--paper);
  stroke: var(--card-line);
  stroke-width: 4px;
}
.roll {
  fill: var(--sheet);
  stroke: var(--heather);
  stroke-width: 3px;
}
.core {
  fill: var(--paper);
  stroke: var(--peat);
}
text {
  fill: var(--peat);
  font-size: 15px;
  font-variant-numeric: tabular-nums;
}
</style>
