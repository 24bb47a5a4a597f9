<script setup lang="ts">
import { computed } from 'vue';

import type { Reckoning } from '@/api/types';

import { chart } from './chart';
import ChartFrame from './ChartFrame.vue';

/** What was said of the odds in each band as bars, what happened as dots, and what so few parcels may stand for as lines. */
const { bands } = defineProps<{ bands: Reckoning['bands'] }>();

const HEIGHT = 250;
const drawn = computed(() => {
  const most = Math.max(1, ...bands.map(({ high_percent }) => high_percent));
  return chart(bands.length, Math.ceil(most), 0.4, HEIGHT);
});
const bars = computed(() =>
  bands.map((band, at) => ({
    ...(drawn.value.bars[at] ?? { x: 0, width: 0, middle: 0 }),
    key: at,
    said: drawn.value.y(band.said_percent),
    happened: drawn.value.y(band.happened_percent),
    low: drawn.value.y(band.low_percent),
    high: drawn.value.y(band.high_percent),
    name: `${band.said_percent.toFixed(2)} %`,
  })),
);
</script>

<template>
  <ChartFrame
    :of="drawn"
    says="of a hundred, by what was said to arrive damaged"
    called="Odds said as bars, what happened as dots with their range"
  >
    <g v-for="bar in bars" :key="bar.key">
      <rect
        :x="bar.x"
        :y="bar.said"
        :width="bar.width"
        :height="Math.max(0, drawn.base - bar.said)"
        class="said"
      />
      <path
        :d="`M${bar.middle} ${bar.low}V${bar.high}M${bar.middle - 7} ${bar.low}h14M${bar.middle - 7} ${bar.high}h14`"
        class="range"
      />
      <circle :cx="bar.middle" :cy="bar.happened" r="6" class="happened" />
      <text :x="bar.middle" :y="drawn.base + 18" text-anchor="middle">{{ bar.name }}</text>
    </g>
  </ChartFrame>
</template>

<style scoped>
.said {
  fill: var(--lichen);
  stroke: var(--moss);
}
.range {
  fill: none;
  stroke: var(--heather);
  stroke-width: 2px;
}
.happened {
  fill: var(--heather);
}
</style>
