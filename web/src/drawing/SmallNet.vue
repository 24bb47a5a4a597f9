<script setup lang="ts">
import { computed } from 'vue';

import type { Blank } from '@/api/types';

/** The parts of a box beside each other, as small as a stamp: enough to tell one style from another. */
const { blanks } = defineProps<{ blanks: Blank[] }>();

const WIDTH = 150;
const HEIGHT = 74;
/** Between two parts, of the whole. */
const GAP = 0.04;

const whole = computed(() => {
  const widths = blanks.map((blank) => blank.width_mm);
  const across = widths.reduce((sum, width) => sum + width, 0);
  const gap = across * GAP;
  return { gap, across: across + gap * (blanks.length - 1), up: Math.max(...blanks.map((b) => b.height_mm)) };
});
const scale = computed(() => Math.min(WIDTH / whole.value.across, HEIGHT / whole.value.up));
const panels = computed(() => {
  let left = 0;
  return blanks.flatMap((blank) => {
    const from = left;
    left += blank.width_mm + whole.value.gap;
    return blank.panels.map(({ name, outline }) => ({
      key: `${blank.part} ${name}`,
      points: outline
        .map(({ x_mm, y_mm }) => {
          const up = (whole.value.up - y_mm) * scale.value;
          return `${((from + x_mm) * scale.value).toFixed(1)},${up.toFixed(1)}`;
        })
        .join(' '),
    }));
  });
});
</script>

<template>
  <svg :viewBox="`-2 -2 ${WIDTH + 4} ${HEIGHT + 4}`" class="net" aria-hidden="true">
    <polygon v-for="panel in panels" :key="panel.key" :points="panel.points" />
  </svg>
</template>

<style scoped>
.net {
  display: block;
  width: 100%;
  height: 62px;
}
polygon {
  fill: var(--blank);
  stroke: var(--peat);
  stroke-width: 1px;
  vector-effect: non-scaling-stroke;
}
</style>
