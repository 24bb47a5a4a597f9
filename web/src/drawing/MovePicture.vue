<script setup lang="ts">
import { computed, useId } from 'vue';

import type { MovePicture } from '@/api/types';

/** How an act looks: walls of a container, what goes in, and which way something moves. */
const { picture, says } = defineProps<{ picture: MovePicture; says: string }>();

/** An arrow is as thick and as pointed whatever its picture measures. */
const HEAD = 0.035;
const head = useId();
const view = computed(() => `0 0 ${picture.width} ${picture.height}`);
const size = computed(() => Math.max(picture.width, picture.height) * HEAD);
const points = (face: { points: number[][] }) => face.points.map((at) => at.join(',')).join(' ');
const arrow = computed(() => {
  const [from, to] = picture.arrow ?? [];
  return from && to ? `M${from.join(' ')}L${to.join(' ')}` : undefined;
});
</script>

<template>
  <svg :viewBox="view" class="move" role="img" :aria-label="says">
    <defs>
      <marker
        :id="head"
        viewBox="0 0 10 10"
        refX="8"
        refY="5"
        :markerWidth="size"
        :markerHeight="size"
        markerUnits="userSpaceOnUse"
        orient="auto"
      >
        <path d="M0 0L10 5L0 10z" class="head" />
      </marker>
    </defs>
    <polygon v-for="(face, at) in picture.faces" :key="at" :points="points(face)" :class="face.of" />
    <path v-if="arrow" :d="arrow" class="way" :marker-end="`url(#${head})`" />
  </svg>
</template>

<style scoped>
.move {
  display: block;
  width: 100%;
  height: 100%;
}
polygon {
  stroke: var(--peat);
  stroke-width: 1.4px;
  stroke-linejoin: round;
  vector-effect: non-scaling-stroke;
}
.card {
  fill: var(--card);
  fill-opacity: 0.55;
}
.inside {
  fill: var(--paper);
}
.goods {
  fill: var(--bog-cotton);
}
.way {
  fill: none;
  stroke: var(--heather);
  stroke-width: 3px;
  vector-effect: non-scaling-stroke;
}
.head {
  fill: var(--heather);
}
</style>
