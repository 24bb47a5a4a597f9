<script setup lang="ts">
import type { ClosedFace } from './closed';

/** Faces of a box seen from above at one corner: what stands still, what opens it, and what one sees in it. */
const { faces } = defineProps<{ faces: ClosedFace[] }>();
</script>

<template>
  <polygon
    v-for="(face, at) in faces"
    :key="at"
    :points="face.points"
    :class="[face.kind, face.light]"
    data-test="closed-face"
  />
</template>

<style scoped>
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
