<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core';
import { computed } from 'vue';

import type { BatchSheet } from '@/api/types';
import { useUnits } from '@/units/useUnits';

/** A sheet with its parts where they lie, its cuts numbered, and what is left of it; from the lower left corner. */
const { sheet, kept } = defineProps<{
  sheet: BatchSheet;
  /** The pieces of its rest that are kept. */
  kept: number[];
}>();
const units = useUnits();

const ROOM = 0.075;
const edge = computed(() => Math.max(sheet.width_mm, sheet.height_mm));
const room = computed(() => edge.value * ROOM);
/** On a phone the drawing is small, and its letters are not. */
const narrow = useMediaQuery('(max-width: 640px)');
const text = computed(() => edge.value / (narrow.value ? 24 : 42));
const box = computed(
  () =>
    `${-room.value} ${-room.value * 0.7} ${sheet.width_mm + room.value * 1.7} ${sheet.height_mm + room.value * 1.7}`,
);
const y = (up: number) => sheet.height_mm - up;

const parts = computed(() =>
  sheet.parts.map((part, at) => {
    const size = units.size(part.width_mm, part.height_mm);
    const wide = part.width_mm > size.length * text.value * 0.56 && part.height_mm > text.value * 3;
    const tall = !wide && part.height_mm > size.length * text.value * 0.56 && part.width_mm > text.value * 3;
    return {
      key: at,
      code: part.code,
      size: wide || tall ? size : '',
      turned: tall,
      x: part.x_mm,
      y: y(part.y_mm + part.height_mm),
      width: part.width_mm,
      height: part.height_mm,
      pattern: `url(#shipment-${part.shipment % 4})`,
      across: part.scores_x_mm.map((at) => part.x_mm + at),
      up: part.scores_y_mm.map((at) => y(part.y_mm + at)),
    };
  }),
);
/** A number stands at the end from which one measures on; where one stands already, the next moves back along its line. */
const cuts = computed(() => {
  const taken: { x: number; y: number }[] = [];
  const apart = text.value * 1.8;
  return sheet.cuts.map(({ n, upright, at_mm, from_mm, to_mm }) => {
    const line = upright
      ? { x1: at_mm, x2: at_mm, y1: y(from_mm), y2: y(to_mm) }
      : { x1: from_mm, x2: to_mm, y1: y(at_mm), y2: y(at_mm) };
    const along = (back: number) =>
      upright ? { x: at_mm, y: y(to_mm) + back } : { x: to_mm - back, y: y(at_mm) };
    const steps = Math.max(1, Math.floor((to_mm - from_mm) / apart));
    const places = Array.from({ length: steps }, (_, step) => along(step * apart));
    const at =
      places.find((one) => taken.every(({ x, y: up }) => Math.hypot(one.x - x, one.y - up) >= apart)) ??
      along(0);
    taken.push(at);
    return { n, line, at };
  });
});
const rest = computed(() =>
  sheet.rest.map((piece, at) => ({
    key: at,
    kept: kept.includes(at),
    x: piece.x_mm,
    y: y(piece.y_mm + piece.height_mm),
    width: piece.width_mm,
    height: piece.height_mm,
    size: units.size(piece.width_mm, piece.height_mm),
    fits: piece.width_mm > text.value * 9 && piece.height_mm > text.value * 2.6,
  })),
);
const says = computed(
  () =>
    `Sheet ${sheet.n}, ${units.size(sheet.width_mm, sheet.height_mm)}: ${sheet.parts.length} parts, ${sheet.cuts.length} cuts`,
);
</script>

<template>
  <svg :viewBox="box" role="img" :aria-label="says" class="layout">
    <defs>
      <pattern id="shipment-0" width="40" height="40" patternUnits="userSpaceOnUse">
        <rect width="40" height="40" class="ground" />
      </pattern>
      <pattern id="shipment-1" width="36" height="36" patternUnits="userSpaceOnUse">
        <rect width="36" height="36" class="ground" />
        <path d="M0 36 36 0" class="hatch" />
      </pattern>
      <pattern id="shipment-2" width="40" height="40" patternUnits="userSpaceOnUse">
        <rect width="40" height="40" class="ground" />
        <circle cx="20" cy="20" r="4" class="dot" />
      </pattern>
      <pattern id="shipment-3" width="36" height="36" patternUnits="userSpaceOnUse">
        <rect width="36" height="36" class="ground" />
        <path d="M18 0v36" class="hatch" />
      </pattern>
    </defs>
    <rect :width="sheet.width_mm" :height="sheet.height_mm" class="sheet" />
    <g v-for="piece in rest" :key="`rest-${piece.key}`">
      <rect
        :x="piece.x"
        :y="piece.y"
        :width="piece.width"
        :height="piece.height"
        class="rest"
        :class="{ kept: piece.kept }"
      />
      <text
        v-if="piece.fits"
        :x="piece.x + piece.width / 2"
        :y="piece.y + piece.height / 2"
        :font-size="text"
        class="label soft"
      >
        {{ piece.kept ? 'kept' : 'rest' }} {{ piece.size }}
      </text>
    </g>
    <g v-for="part in parts" :key="part.key">
      <rect
        :x="part.x"
        :y="part.y"
        :width="part.width"
        :height="part.height"
        class="part"
        :fill="part.pattern"
      />
      <line
        v-for="at in part.across"
        :key="`x${at}`"
        :x1="at"
        :x2="at"
        :y1="part.y"
        :y2="part.y + part.height"
        class="score"
      />
      <line
        v-for="at in part.up"
        :key="`y${at}`"
        :x1="part.x"
        :x2="part.x + part.width"
        :y1="at"
        :y2="at"
        class="score"
      />
      <g
        :transform="`translate(${part.x + part.width / 2} ${part.y + part.height / 2})${part.turned ? ' rotate(-90)' : ''}`"
      >
        <text class="label code" :font-size="text * 1.25" :y="part.size ? -text * 0.7 : 0">
          {{ part.code }}
        </text>
        <text v-if="part.size" class="label" :font-size="text" :y="text * 0.75">{{ part.size }}</text>
      </g>
    </g>
    <g v-for="cut in cuts" :key="cut.n" class="cut">
      <line v-bind="cut.line" />
    </g>
    <g v-for="cut in cuts" :key="`n${cut.n}`" class="number">
      <circle :cx="cut.at.x" :cy="cut.at.y" :r="text * 0.85" />
      <text :x="cut.at.x" :y="cut.at.y" :font-size="text" class="label">{{ cut.n }}</text>
    </g>
    <g class="side">
      <text :x="sheet.width_mm / 2" :y="sheet.height_mm + room * 0.62" :font-size="text" class="label">
        {{ units.length(sheet.width_mm) }}
      </text>
      <text
        :transform="`translate(${-room * 0.62} ${sheet.height_mm / 2}) rotate(-90)`"
        :font-size="text"
        class="label"
      >
        {{ units.length(sheet.height_mm) }}
      </text>
      <circle :cx="0" :cy="sheet.height_mm" :r="text * 0.4" class="corner" />
    </g>
  </svg>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.layout {
  display: block;
  width: 100%;
  max-height: 62vh;
}
.sheet {
  fill: var(--paper);
  stroke: var(--peat);
  stroke-width: 2px;
  vector-effect: non-scaling-stroke;
}
.ground {
  fill: var(--card);
}
.hatch {
  fill: none;
  stroke: var(--card-line);
  stroke-width: 1.6px;
}
.dot {
  fill: var(--card-line);
}
.part {
  stroke: var(--peat);
  stroke-width: 1px;
  vector-effect: non-scaling-stroke;
}
.rest {
  fill: var(--paper);
}
.rest.kept {
  fill: var(--lichen);
}
.score {
  stroke: var(--card-line);
  stroke-width: 1px;
  stroke-dasharray: 6 5;
  vector-effect: non-scaling-stroke;
}
.cut line {
  stroke: var(--peat);
  stroke-width: 2px;
  vector-effect: non-scaling-stroke;
}
.number circle {
  fill: var(--paper);
  stroke: var(--peat);
  stroke-width: 1.5px;
  vector-effect: non-scaling-stroke;
}
.corner {
  fill: var(--rowan);
}
.label {
  fill: var(--peat);
  text-anchor: middle;
  dominant-baseline: central;
}
.label.soft {
  fill: var(--peat-soft);
}
.code {
  font-weight: 700;
}
@include at.phone {
  .layout {
    max-height: none;
  }
}
</style>
