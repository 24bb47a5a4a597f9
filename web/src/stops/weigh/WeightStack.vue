<script setup lang="ts">
import { computed } from 'vue';

import type { Plan } from '@/api/types';
import { grams, kilograms } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import { NAMED_FROM, stackOf } from './stack';

/** The predicted masses one on the other, with the scale’s reading as a line across. */
const { plan, read } = defineProps<{ plan: Plan; read?: number }>();
const units = useUnits();

const HEIGHT = 330;
const stack = computed(() => stackOf(plan, units, read));
const y = (share: number) => HEIGHT * (1 - share);
const shown = computed(() => stack.value.blocks.filter(({ from, to }) => to - from >= NAMED_FROM));
const thin = computed(() => stack.value.blocks.filter(({ from, to }) => to - from < NAMED_FROM));
const says = computed(() => {
  const parts = stack.value.blocks.map(({ name, grams: mass }) => `${name} ${grams(mass)}`);
  return `Predicted, from the piece outward: ${parts.join(', ')}; together ${kilograms(plan.tally.weight.mass_g)}`;
});
</script>

<template>
  <figure>
    <svg :viewBox="`0 0 420 ${HEIGHT + 8}`" role="img" :aria-label="says" class="figure">
      <g v-for="block in stack.blocks" :key="block.key">
        <rect
          x="0"
          :y="y(block.to)"
          width="120"
          :height="Math.max(0.5, y(block.from) - y(block.to))"
          :class="['block', `shade-${block.swatch}`, { piece: block.key === 'piece' }]"
        />
      </g>
      <line
        v-if="stack.read !== undefined"
        x1="0"
        x2="420"
        :y1="y(stack.read)"
        :y2="y(stack.read)"
        class="read"
      />
      <text v-for="block in shown" :key="block.key" x="132" :y="(y(block.from) + y(block.to)) / 2 + 5">
        {{ block.name }}, {{ grams(block.grams) }}
      </text>
      <rect
        x="-1"
        :y="y(stack.planned.to)"
        width="122"
        :height="Math.max(2, y(stack.planned.from) - y(stack.planned.to))"
        class="doubt"
      />
      <text
        v-if="stack.read !== undefined && read"
        x="420"
        :y="y(stack.read) - 5"
        text-anchor="end"
        class="says"
      >
        reads {{ kilograms(read) }}
      </text>
      <line x1="0" x2="420" :y1="HEIGHT" :y2="HEIGHT" class="ground" />
    </svg>
    <figcaption class="soft">
      Planned {{ kilograms(plan.tally.weight.mass_g) }} ± {{ kilograms(plan.tally.weight.plus_minus_g) }}, the
      dashed band.
      <template v-if="thin.length > 0">
        Too thin to name:
        {{ thin.map(({ name, grams: mass }) => `${name.toLowerCase()} ${grams(mass)}`).join(', ') }}.
      </template>
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  display: block;
  width: 100%;
  max-width: 480px;
  height: auto;
  overflow: visible;
}
text {
  fill: var(--peat);
  stroke: var(--bog-cotton);
  stroke-width: 4px;
  paint-order: stroke;
  font-size: var(--drawn);
}
.block {
  stroke: var(--paper);
  stroke-width: 1px;
}
.shade-0 {
  fill: var(--mass-middle);
}
.shade-1 {
  fill: var(--mass-dark);
}
.shade-2 {
  fill: var(--mass-light);
}
.piece {
  fill: var(--heather);
}
.doubt {
  fill: color-mix(in srgb, var(--peat) 14%, transparent);
  stroke: var(--peat);
  stroke-dasharray: 3 3;
}
.read {
  stroke: var(--rowan);
  stroke-width: 2px;
}
.says {
  fill: var(--rowan);
  font-weight: 600;
}
.ground {
  stroke: var(--peat);
  stroke-width: 2px;
}
</style>
