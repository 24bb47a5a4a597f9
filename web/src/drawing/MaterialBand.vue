<script setup lang="ts">
import { computed } from 'vue';

import { bubbles, flutes } from './band';
import type { Band } from './band';

const { band } = defineProps<{ band: Band }>();

/** The band is drawn lying, its outer side up, and then turned. */
const lying = computed(() => {
  const { x, y, width, height, outward } = band;
  if (outward === 'left') {
    return { length: height, thickness: width, transform: `translate(${x} ${y + height}) rotate(-90)` };
  }
  const flip = outward === 'down' ? `translate(${x} ${y + height}) scale(1 -1)` : `translate(${x} ${y})`;
  return { length: width, thickness: height, transform: flip };
});

const one = computed(() => lying.value.thickness / Math.max(1, band.turns));
const boards = computed(() =>
  Array.from({ length: Math.max(1, band.turns) }, (_, board) => board * one.value),
);
const sheets = computed(() => {
  const { length } = lying.value;
  return Array.from({ length: Math.max(1, band.turns) }, (_, turn) =>
    bubbles(length, one.value, one.value * (turn + 1)),
  ).join('');
});
</script>

<template>
  <g v-if="lying.thickness > 0 && lying.length > 0" :transform="lying.transform" class="band">
    <template v-if="band.pattern === 'contact'">
      <path :d="`M0 0H${lying.length}M0 ${lying.thickness}H${lying.length}`" class="paper" />
    </template>
    <template v-else-if="band.pattern === 'film'">
      <path :d="`M0 ${lying.thickness / 2}H${lying.length}`" class="film" />
    </template>
    <template v-else-if="band.pattern === 'art'">
      <rect :width="lying.length" :height="lying.thickness" class="art" />
      <path :d="`M0 0H${lying.length}`" class="face" />
    </template>
    <template v-else-if="band.pattern === 'card'">
      <g v-for="top in boards" :key="top" :transform="`translate(0 ${top})`">
        <rect :width="lying.length" :height="one" class="card" />
        <path :d="flutes(lying.length, one)" class="flutes" />
      </g>
    </template>
    <template v-else-if="band.pattern === 'bubble'">
      <rect :width="lying.length" :height="lying.thickness" class="bubble" />
      <path :d="sheets" class="bubbles" />
    </template>
    <template v-else>
      <rect :width="lying.length" :height="lying.thickness" :class="band.pattern" />
      <rect :width="lying.length" :height="lying.thickness" :fill="`url(#pattern-${band.pattern})`" />
    </template>
  </g>
</template>

<style scoped>
.band * {
  vector-effect: non-scaling-stroke;
}
.paper {
  fill: none;
  stroke: var(--peat);
  stroke-width: 0.8px;
}
.film {
  stroke: var(--film);
  stroke-width: 2px;
}
.art {
  fill: var(--sheet);
}
.face {
  stroke: var(--heather);
  stroke-width: 4px;
}
.tape {
  fill: var(--card);
  stroke: var(--peat-soft);
}
.card {
  fill: var(--card);
  stroke: var(--card-line);
}
.flutes {
  fill: none;
  stroke: var(--card-line);
}
.bubble {
  fill: var(--bubble);
}
.bubbles {
  fill: var(--film-light);
  stroke: var(--bubble-line);
}
.fill {
  fill: var(--fill);
}
.fibreboard,
.plywood {
  fill: var(--wood);
  stroke: var(--card-line);
}
.foam {
  fill: var(--foam);
  stroke: var(--peat-soft);
}
</style>
