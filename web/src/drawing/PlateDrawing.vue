<script setup lang="ts">
import { computed } from 'vue';

import { useUnits } from '@/units/useUnits';

/** A board held along its edges, pressed in at its middle; the give is drawn ten times as deep. */
const { side, gives } = defineProps<{ side: number; gives: number }>();
const units = useUnits();

const WIDTH = 380;
const LEFT = 30;
const TIMES = 10;
const MOST = 110;
const down = computed(() => Math.min((gives / side) * WIDTH * TIMES, MOST));
</script>

<template>
  <svg
    viewBox="0 0 440 216"
    role="img"
    :aria-label="`A board pressed in by ${units.length(gives)} at its middle`"
  >
    <path :d="`M${LEFT} 50h${WIDTH}`" class="rest" />
    <path :d="`M${LEFT} 50Q${LEFT + WIDTH / 2} ${50 + down * 2} ${LEFT + WIDTH} 50`" class="board" />
    <path :d="`M${LEFT - 8} 66l8 -14 8 14zM${LEFT + WIDTH - 8} 66l8 -14 8 14z`" class="held" />
    <path :d="`M${LEFT + WIDTH / 2 - 26} 8l26 ${34 + down} 26 ${-34 - down}`" class="corner" />
    <path :d="`M${LEFT + WIDTH / 2 + 60} 50v${down}m-6 0h12m-12 ${-down}h12`" />
    <text :x="LEFT + WIDTH / 2 + 74" :y="50 + down / 2 + 6">
      {{ units.length(gives) }}
    </text>
    <text :x="LEFT + WIDTH / 2" y="190" text-anchor="middle" class="soft">
      longer side {{ units.length(side) }}, held along all four edges
    </text>
    <text :x="LEFT + WIDTH / 2" y="208" text-anchor="middle" class="soft">
      what it gives is drawn ten times as deep
    </text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}
path {
  fill: none;
  stroke: var(--peat);
}
.rest {
  stroke-dasharray: 3 5;
}
.board {
  stroke: var(--card-line);
  stroke-width: 8px;
}
.held {
  fill: var(--peat-soft);
}
.corner {
  fill: var(--sedge);
}
text {
  fill: var(--peat);
  font-size: 15px;
}
.soft {
  fill: var(--peat-soft);
}
</style>
