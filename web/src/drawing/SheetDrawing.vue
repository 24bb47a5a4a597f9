<script setup lang="ts">
import { computed } from 'vue';

import { useUnits } from '@/units/useUnits';

/** A sheet to cut, with what lies on it. */
const { width, height, innerWidth, innerHeight, inner } = defineProps<{
  width: number;
  height: number;
  innerWidth: number;
  innerHeight: number;
  /** What the inner rectangle is. */
  inner: string;
}>();
const units = useUnits();

const ROOM = { width: 300, height: 220 };
const LEFT = 74;
const TOP = 10;

const drawn = computed(() => {
  const scale = Math.min(ROOM.width / width, ROOM.height / height);
  const sheet = { width: width * scale, height: height * scale };
  const face = {
    width: Math.min(innerWidth * scale, sheet.width),
    height: Math.min(innerHeight * scale, sheet.height),
  };
  return {
    sheet,
    face: { ...face, x: LEFT + (sheet.width - face.width) / 2, y: TOP + (sheet.height - face.height) / 2 },
    bottom: TOP + sheet.height,
  };
});
</script>

<template>
  <svg
    :viewBox="`0 0 ${LEFT + drawn.sheet.width + 20} ${drawn.bottom + 46}`"
    role="img"
    :aria-label="`The sheet to cut, ${units.size(width, height)}, with the ${inner} ${units.size(innerWidth, innerHeight)} on it`"
  >
    <rect :x="LEFT" :y="TOP" :width="drawn.sheet.width" :height="drawn.sheet.height" class="sheet" />
    <rect v-bind="drawn.face" class="face" />
    <text
      :x="drawn.face.x + drawn.face.width / 2"
      :y="drawn.face.y + drawn.face.height / 2 + 5"
      text-anchor="middle"
    >
      {{ inner }}
    </text>
    <path
      :d="`M${LEFT} ${drawn.bottom + 14}h${drawn.sheet.width}m0 -6v12M${LEFT} ${drawn.bottom + 8}v12M${LEFT - 12} ${TOP}v${drawn.sheet.height}m-6 0h12M${LEFT - 18} ${TOP}h12`"
    />
    <text :x="LEFT + drawn.sheet.width / 2" :y="drawn.bottom + 36" text-anchor="middle">
      {{ units.length(width) }}
    </text>
    <text
      :transform="`translate(${LEFT - 24} ${TOP + drawn.sheet.height / 2}) rotate(-90)`"
      text-anchor="middle"
    >
      {{ units.length(height) }}
    </text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-height: 300px;
}
.sheet {
  fill: var(--paper);
  stroke: var(--peat);
  stroke-width: 2px;
}
.face {
  fill: var(--art-light);
  stroke: var(--heather);
  stroke-dasharray: 7 4;
}
path {
  fill: none;
  stroke: var(--peat);
}
text {
  fill: var(--peat);
  font-size: 15px;
  font-variant-numeric: tabular-nums;
}
</style>
