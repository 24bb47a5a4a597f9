<script setup lang="ts">
import { scaleLinear, scaleLog } from 'd3-scale';
import { line as through } from 'd3-shape';
import { computed } from 'vue';

import type { MaterialCurve } from '@/api/types';

/** Measured points and the fitted line: dynamic stress, on a logarithmic axis, over energy. */
const { fitted } = defineProps<{ fitted: MaterialCurve['fitted'] }>();

const FRAME = { width: 420, height: 220, left: 52, right: 12, top: 12, bottom: 40 };
const base = FRAME.height - FRAME.bottom;
const TICKS = 4;

const energies = computed(() => fitted.points.map(({ energy_kj_m3 }) => energy_kj_m3));
const stresses = computed(() => fitted.points.map(({ stress_kpa }) => stress_kpa));
const highest = computed(() => Math.max(...stresses.value));
const x = computed(() =>
  scaleLinear([0, Math.max(...energies.value) * 1.08], [FRAME.left, FRAME.width - FRAME.right]),
);
const y = computed(() => {
  const least = Math.min(...stresses.value, fitted.curve.a_kpa);
  return scaleLog([least * 0.85, highest.value * 1.2], [base, FRAME.top]);
});

/** The fitted curve is a straight line here, between the ends that the core gives. */
const line = computed(
  () =>
    through<(typeof fitted.ends)[number]>()
      .x((at) => x.value(at.energy_kj_m3))
      .y((at) => y.value(at.stress_kpa))(fitted.ends) ?? undefined,
);
const ticks = computed(() => x.value.ticks(TICKS));
const says = computed(
  () =>
    `${fitted.points.length} points and the curve fitted to them, from ${fitted.curve.a_kpa.toFixed(0)} kPa at no energy`,
);
</script>

<template>
  <svg :viewBox="`0 0 ${FRAME.width} ${FRAME.height}`" role="img" :aria-label="says">
    <path :d="`M${FRAME.left} ${FRAME.top}V${base}H${FRAME.width - FRAME.right}`" class="axis" />
    <template v-for="at in ticks" :key="at">
      <path :d="`M${x(at)} ${base}v5`" class="axis" />
      <text :x="x(at)" :y="base + 18" text-anchor="middle">{{ at }}</text>
    </template>
    <text :x="FRAME.width - FRAME.right" :y="FRAME.height - 4" text-anchor="end">energy, kJ/m³</text>
    <text x="2" :y="FRAME.top + 8">kPa</text>
    <text :x="FRAME.left - 6" :y="y(fitted.curve.a_kpa) + 5" text-anchor="end">
      {{ fitted.curve.a_kpa.toFixed(0) }}
    </text>
    <text :x="FRAME.left - 6" :y="y(highest) + 5" text-anchor="end">
      {{ highest.toFixed(0) }}
    </text>
    <path :d="line" class="line" />
    <circle
      v-for="(point, place) in fitted.points"
      :key="place"
      :cx="x(point.energy_kj_m3)"
      :cy="y(point.stress_kpa)"
      r="4.5"
    />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}
.axis {
  fill: none;
  stroke: var(--peat);
}
.line {
  stroke: var(--heather);
  stroke-width: 2.5px;
}
circle {
  fill: var(--paper);
  stroke: var(--peat);
  stroke-width: 2px;
}
text {
  fill: var(--peat);
  font-size: 13px;
  font-variant-numeric: tabular-nums;
}
</style>
