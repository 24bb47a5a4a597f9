<script setup lang="ts">
import { scaleBand, scaleLinear } from 'd3-scale';
import { computed } from 'vue';

import type { Reckoning } from '@/api/types';

/** How many parcels were off their planned weight by how many per cent. */
const { bins } = defineProps<{ bins: Reckoning['weights']['bins'] }>();

const FRAME = { width: 520, height: 220, left: 40, right: 10, top: 10, bottom: 48 };
const base = FRAME.height - FRAME.bottom;

const drawn = computed(() => {
  const most = Math.max(1, ...bins.map(({ parcels }) => parcels));
  const y = scaleLinear([0, most], [base, FRAME.top]);
  const x = scaleBand(
    bins.map((_, at) => String(at)),
    [FRAME.left, FRAME.width - FRAME.right],
  ).padding(0.12);
  const whole = y.ticks(4).filter(Number.isInteger);
  return {
    ticks: whole.map((value) => ({ value, y: y(value) })),
    bars: bins.map((bin, at) => ({
      key: at,
      x: x(String(at)) ?? 0,
      width: x.bandwidth(),
      y: y(bin.parcels),
      from: bin.from_percent.toFixed(0),
    })),
  };
});
</script>

<template>
  <svg
    :viewBox="`0 0 ${FRAME.width} ${FRAME.height}`"
    role="img"
    aria-label="How many parcels were off by how many per cent"
  >
    <g v-for="tick in drawn.ticks" :key="tick.value">
      <line :x1="FRAME.left" :x2="FRAME.width - FRAME.right" :y1="tick.y" :y2="tick.y" class="grid" />
      <text :x="FRAME.left - 6" :y="tick.y + 5" text-anchor="end">{{ tick.value }}</text>
    </g>
    <g v-for="bar in drawn.bars" :key="bar.key">
      <rect :x="bar.x" :y="bar.y" :width="bar.width" :height="Math.max(0, base - bar.y)" class="bar" />
      <text :x="bar.x" :y="base + 18" text-anchor="middle">{{ bar.from }}</text>
    </g>
    <text :x="FRAME.width - FRAME.right" :y="FRAME.height - 6" text-anchor="end">
      per cent over the plan, from; parcels upward
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
.bar {
  fill: var(--water);
}
</style>
