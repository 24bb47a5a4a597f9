<script setup lang="ts">
import { scaleLinear } from 'd3-scale';
import { computed } from 'vue';

import { kilograms } from '@/units/show';

/** Figures of one kind side by side, as bars from one foot. */
const { allowed, crushes, weights } = defineProps<{
  /** In newtons, with safety. */
  allowed?: number;
  /** In newtons. */
  crushes?: number;
  /** In kilograms. */
  weights?: { actual: number; volumetric: number; billable: number };
}>();

/** A kilogram. */
const G = 1000;
const HIGH = 150;
/** What is next to nothing is still seen. */
const LEAST_HIGH = 2;
const bars = computed(() => {
  const found = weights
    ? [
        { name: 'actual', value: weights.actual, shown: kilograms(weights.actual * G), main: false },
        {
          name: 'volumetric',
          value: weights.volumetric,
          shown: kilograms(weights.volumetric * G),
          main: false,
        },
        { name: 'billed', value: weights.billable, shown: kilograms(weights.billable * G), main: true },
      ]
    : [
        { name: 'crushes at', value: crushes ?? 0, shown: `${(crushes ?? 0).toFixed(0)} N`, main: false },
        { name: 'allowed', value: allowed ?? 0, shown: `${(allowed ?? 0).toFixed(0)} N`, main: true },
      ];
  const most = Math.max(...found.map(({ value }) => value), Number.MIN_VALUE);
  const high = scaleLinear([0, most], [LEAST_HIGH, HIGH]);
  return found.map((bar, place) => ({
    ...bar,
    x: 30 + place * 120,
    high: high(bar.value),
  }));
});
</script>

<template>
  <svg
    :viewBox="`0 0 ${40 + bars.length * 120} 220`"
    role="img"
    :aria-label="bars.map(({ name, shown }) => `${name} ${shown}`).join(', ')"
  >
    <g v-for="bar in bars" :key="bar.name">
      <rect :x="bar.x" :y="180 - bar.high" width="76" :height="bar.high" :class="{ main: bar.main }" />
      <text :x="bar.x + 38" :y="172 - bar.high" text-anchor="middle">{{ bar.shown }}</text>
      <text :x="bar.x + 38" y="202" text-anchor="middle" class="soft">{{ bar.name }}</text>
    </g>
    <path :d="`M10 180H${30 + bars.length * 120}`" />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-height: 260px;
}
rect {
  fill: var(--card);
  stroke: var(--card-line);
}
.main {
  fill: var(--lichen);
  stroke: var(--moss);
  stroke-width: 2px;
}
path {
  stroke: var(--peat);
  stroke-width: 2px;
}
text {
  fill: var(--peat);
  font-size: 15px;
  font-variant-numeric: tabular-nums;
}
.soft {
  fill: var(--peat-soft);
}
</style>
