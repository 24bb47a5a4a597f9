<script setup lang="ts">
import { scaleBand, scaleLinear } from 'd3-scale';
import { computed } from 'vue';

import type { Reckoning } from '@/api/types';

/** What was said of the odds in each band as bars, what happened as dots, and what so few parcels may stand for as lines. */
const { bands } = defineProps<{ bands: Reckoning['bands'] }>();

const FRAME = { width: 520, height: 250, left: 44, right: 10, top: 10, bottom: 48 };
const base = FRAME.height - FRAME.bottom;

const drawn = computed(() => {
  const most = Math.max(1, ...bands.map(({ high_percent }) => high_percent));
  const y = scaleLinear([0, Math.ceil(most)], [base, FRAME.top]);
  const x = scaleBand(
    bands.map((_, at) => String(at)),
    [FRAME.left, FRAME.width - FRAME.right],
  ).padding(0.4);
  return {
    ticks: y.ticks(4).map((value) => ({ value, y: y(value) })),
    bars: bands.map((band, at) => {
      const left = x(String(at)) ?? 0;
      return {
        key: at,
        x: left,
        width: x.bandwidth(),
        middle: left + x.bandwidth() / 2,
        said: y(band.said_percent),
        happened: y(band.happened_percent),
        low: y(band.low_percent),
        high: y(band.high_percent),
        name: `${band.said_percent.toFixed(2)} %`,
      };
    }),
  };
});
</script>

<template>
  <svg
    :viewBox="`0 0 ${FRAME.width} ${FRAME.height}`"
    role="img"
    aria-label="Odds said as bars, what happened as dots with their range"
  >
    <g v-for="tick in drawn.ticks" :key="tick.value">
      <line :x1="FRAME.left" :x2="FRAME.width - FRAME.right" :y1="tick.y" :y2="tick.y" class="grid" />
      <text :x="FRAME.left - 6" :y="tick.y + 5" text-anchor="end">{{ tick.value }}</text>
    </g>
    <g v-for="bar in drawn.bars" :key="bar.key">
      <rect :x="bar.x" :y="bar.said" :width="bar.width" :height="Math.max(0, base - bar.said)" class="said" />
      <path
        :d="`M${bar.middle} ${bar.low}V${bar.high}M${bar.middle - 7} ${bar.low}h14M${bar.middle - 7} ${bar.high}h14`"
        class="range"
      />
      <circle :cx="bar.middle" :cy="bar.happened" r="6" class="happened" />
      <text :x="bar.middle" :y="base + 18" text-anchor="middle">{{ bar.name }}</text>
    </g>
    <text :x="FRAME.width - FRAME.right" :y="FRAME.height - 6" text-anchor="end">
      of a hundred, by what was said to arrive damaged
    </text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}
text {
  fill: var(--peat-soft);
  font-size: 14px;
  font-variant-numeric: tabular-nums;
}
.grid {
  stroke: var(--sedge);
}
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
