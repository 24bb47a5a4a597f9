<script setup lang="ts">
import { computed } from 'vue';

import type { Plan } from '@/api/types';
import { useUnits } from '@/units/useUnits';

/** A roll in its tube, cut across. */
const { plan } = defineProps<{ plan: Plan }>();
const units = useUnits();

const SIZE = 360;
const MIDDLE = SIZE / 2;
const ROOM = 150;
const TURNS_DRAWN = 4;

const drawn = computed(() => {
  const roll = plan.layers.find(({ make }) => make.kind === 'roll')?.make;
  const tube = plan.layers.find(({ make }) => make.kind === 'tube')?.make;
  if (roll?.kind !== 'roll' || tube?.kind !== 'tube') return undefined;
  const around = plan.tally.outside.across_mm / 2;
  const scale = ROOM / (tube.triangular ? around * 1.1 : around);
  const inside = (tube.inside_mm / 2) * scale;
  const [inner, outer] = [(roll.inner_mm / 2) * scale, (roll.outer_mm / 2) * scale];
  const wrap = plan.layers.find(({ slot }) => slot === 'first_wrap');
  const wrapped = wrap ? (wrap.envelope.across_mm / 2) * scale : outer;
  const rings = Array.from(
    { length: TURNS_DRAWN },
    (_, ring) => inner + ((outer - inner) * ring) / (TURNS_DRAWN - 1),
  );
  return {
    roll,
    tube,
    inner,
    outer,
    wrapped,
    inside,
    rings,
    wall: tube.wall_mm * scale,
    triangle: triangle(tube.inside_mm * scale),
  };
});

const says = computed(() => {
  if (!drawn.value) return '';
  const { roll, tube } = drawn.value;
  const held = tube.triangular ? 'a triangular tube of side' : 'a tube of';
  return `The roll, ${units.length(roll.inner_mm)} inside and ${units.length(roll.outer_mm)} thick, in ${held} ${units.length(tube.inside_mm)} inside`;
});

/** The corners of a triangle of a side around the middle. */
function triangle(side: number): string {
  const high = (side * Math.sqrt(3)) / 2;
  const top = MIDDLE - (high * 2) / 3;
  const bottom = MIDDLE + high / 3;
  return `${MIDDLE},${top} ${MIDDLE + side / 2},${bottom} ${MIDDLE - side / 2},${bottom}`;
}
</script>

<template>
  <svg v-if="drawn" :viewBox="`0 0 ${SIZE + 140} ${SIZE}`" role="img" :aria-label="says">
    <polygon
      v-if="drawn.tube.triangular"
      :points="drawn.triangle"
      class="tube"
      :stroke-width="Math.max(2, drawn.wall * 2)"
    />
    <circle
      v-else
      :cx="MIDDLE"
      :cy="MIDDLE"
      :r="drawn.inside + drawn.wall / 2"
      class="tube"
      :stroke-width="Math.max(2, drawn.wall)"
    />
    <circle :cx="MIDDLE" :cy="MIDDLE" :r="drawn.wrapped" class="wrap" />
    <circle :cx="MIDDLE" :cy="MIDDLE" :r="drawn.outer" class="sheet" />
    <circle v-for="ring in drawn.rings" :key="ring" :cx="MIDDLE" :cy="MIDDLE" :r="ring" class="ring" />
    <circle :cx="MIDDLE" :cy="MIDDLE" :r="drawn.inner" class="core" />
    <g class="words">
      <text :x="MIDDLE" :y="MIDDLE - 4" text-anchor="middle">core</text>
      <text :x="MIDDLE" :y="MIDDLE + 16" text-anchor="middle">{{ units.length(drawn.roll.inner_mm) }}</text>
      <path :d="`M${MIDDLE + drawn.outer * 0.7} ${MIDDLE - drawn.outer * 0.72}L${SIZE - 8} 60h10`" />
      <text :x="SIZE + 8" y="65">roll {{ units.length(drawn.roll.outer_mm) }}</text>
      <path :d="`M${MIDDLE + drawn.inside * 0.9} ${MIDDLE + drawn.inside * 0.5}L${SIZE - 8} 300h10`" />
      <text :x="SIZE + 8" y="305">
        {{ drawn.tube.triangular ? 'side' : 'tube' }} {{ units.length(drawn.tube.inside_mm) }}
      </text>
      <text :x="SIZE + 8" y="327">{{ units.length(drawn.tube.length_mm) }} long</text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-height: 380px;
}
.tube {
  fill: var(--paper);
  stroke: var(--card-line);
}
.wrap {
  fill: var(--bubble);
  stroke: var(--bubble-line);
  stroke-dasharray: 5 4;
}
.sheet {
  fill: var(--sheet);
  stroke: var(--heather);
  stroke-width: 4px;
}
.ring {
  fill: none;
  stroke: var(--heather);
}
.core {
  fill: var(--paper);
  stroke: var(--peat);
}
.words path {
  fill: none;
  stroke: var(--peat-soft);
}
text {
  fill: var(--peat);
  font-size: 15px;
  font-variant-numeric: tabular-nums;
}
</style>
