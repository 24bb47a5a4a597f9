<script setup lang="ts">
import { computed } from 'vue';

import { closedBox } from './closed';
import type { Closing } from './closed';

/** A box as it stands closed, with what opens it lifted, as small as a stamp. */
const { closing, sides } = defineProps<{
  closing: Closing;
  /** Outside: across, up and through. */
  sides: readonly [number, number, number];
}>();
const WIDTH = 150;
const HEIGHT = 86;
const drawn = computed(() => closedBox(closing, sides, { width: WIDTH, height: HEIGHT }));
</script>

<template>
  <svg :viewBox="`-2 -2 ${WIDTH + 4} ${HEIGHT + 4}`" class="closed" aria-hidden="true">
    <polygon
      v-for="(face, at) in drawn"
      :key="at"
      :points="face.points"
      :class="[face.kind, face.light]"
      data-test="closed-face"
    />
  </svg>
</template>

<style scoped>
.closed {
  display: block;
  width: 100%;
  height: 78px;
}
polygon {
  fill: var(--blank);
  stroke: var(--peat);
  stroke-width: 1px;
  stroke-linejoin: round;
  vector-effect: non-scaling-stroke;
}
.top {
  fill: var(--paper);
}
.dark {
  fill: var(--sedge);
}
/* What opens it. */
.moves {
  stroke: var(--heather);
  stroke-width: 1.6px;
}
.inside {
  fill: var(--card-line);
  fill-opacity: 0.35;
}
</style>
