<script setup lang="ts">
import { computed } from 'vue';

import type { Reckoning } from '@/api/types';

import { chart } from './chart';
import ChartFrame from './ChartFrame.vue';

/** How many parcels were off their planned weight by how many per cent. */
const { bins } = defineProps<{ bins: Reckoning['weights']['bins'] }>();

const HEIGHT = 220;
const drawn = computed(() => {
  const most = Math.max(1, ...bins.map(({ parcels }) => parcels));
  return chart(bins.length, most, 0.12, HEIGHT, true);
});
const bars = computed(() =>
  bins.map((bin, at) => ({
    ...(drawn.value.bars[at] ?? { x: 0, width: 0 }),
    key: at,
    y: drawn.value.y(bin.parcels),
    from: bin.from_percent.toFixed(0),
  })),
);
</script>

<template>
  <ChartFrame
    :of="drawn"
    says="per cent over the plan, from; parcels upward"
    called="How many parcels were off by how many per cent"
  >
    <g v-for="bar in bars" :key="bar.key">
      <rect :x="bar.x" :y="bar.y" :width="bar.width" :height="Math.max(0, drawn.base - bar.y)" class="bar" />
      <text :x="bar.x" :y="drawn.base + 18" text-anchor="middle">{{ bar.from }}</text>
    </g>
  </ChartFrame>
</template>

<style scoped>
.bar {
  fill: var(--water);
}
</style>
