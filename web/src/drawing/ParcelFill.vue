<script setup lang="ts">
import { computed } from 'vue';

import type { ParcelStage } from '@/api/types';

/** A parcel that fills as it progresses: the piece, wrapped, boxed, labelled, gone; what is still to come is dashed. */
const { stage } = defineProps<{ stage: ParcelStage }>();

const ORDER: readonly ParcelStage[] = ['bare', 'wrapped', 'boxed', 'labelled', 'gone'];
const at = computed(() => ORDER.indexOf(stage));
const is = (wanted: ParcelStage) => at.value >= ORDER.indexOf(wanted);
</script>

<template>
  <svg viewBox="0 0 96 54" class="fill" :class="stage" aria-hidden="true">
    <rect x="3" y="3" width="82" height="48" class="box" :class="{ on: is('boxed') }" />
    <rect x="13" y="11" width="62" height="32" class="wrap" :class="{ on: is('wrapped') }" />
    <rect x="23" y="18" width="42" height="18" class="piece" />
    <rect v-if="is('labelled')" x="56" y="32" width="24" height="14" class="label" />
    <path v-if="is('labelled')" d="M60 37h16M60 41h10" class="lines" />
    <path v-if="is('gone')" d="M84 27h9m-4-4l4 4-4 4" class="gone-mark" />
  </svg>
</template>

<style scoped>
.fill {
  display: block;
  width: 96px;
}
.box,
.wrap {
  fill: none;
  stroke: var(--peat-soft);
  stroke-dasharray: 4 4;
}
.box.on {
  fill: var(--card);
  stroke: var(--card-line);
  stroke-dasharray: none;
  stroke-width: 2px;
}
.wrap.on {
  fill: var(--bubble);
  stroke: var(--bubble-line);
  stroke-dasharray: none;
  stroke-width: 2px;
}
.piece {
  fill: var(--heather);
}
.label {
  fill: var(--paper);
  stroke: var(--peat);
}
.lines,
.gone-mark {
  fill: none;
  stroke: var(--peat);
  stroke-width: 1.5px;
}
.gone rect {
  opacity: 0.55;
}
</style>
