<script setup lang="ts">
import { computed } from 'vue';

import type { MaterialCurve } from '@/api/types';

/** Measured points and the fitted line: dynamic stress, on a logarithmic axis, over energy. */
const { fitted } = defineProps<{ fitted: MaterialCurve['fitted'] }>();

const FRAME = { width: 420, height: 220, left: 52, right: 12, top: 12, bottom: 40 };
const base = FRAME.height - FRAME.bottom;
const TICKS = 4;

const span = computed(() => {
  const energies = fitted.points.map(({ energy_kj_m3 }) => energy_kj_m3);
  const stresses = fitted.points.map(({ stress_kpa }) => stress_kpa);
  return {
    energy: Math.max(...energies) * 1.08,
    least: Math.min(...stresses, fitted.curve.a_kpa) * 0.85,
    most: Math.max(...stresses) * 1.2,
  };
});

const x = (energy: number) =>
  FRAME.left + (energy / span.value.energy) * (FRAME.width - FRAME.left - FRAME.right);
function y(kpa: number): number {
  const { least, most } = span.value;
  return base - (Math.log(kpa / least) / Math.log(most / least)) * (base - FRAME.top);
}

/** The fitted curve is a straight line here, between the ends that the core gives. */
const line = computed(() => {
  const [from, to] = fitted.ends;
  return from && to
    ? `M${x(from.energy_kj_m3)} ${y(from.stress_kpa)}L${x(to.energy_kj_m3)} ${y(to.stress_kpa)}`
    : '';
});
const ticks = computed(() => {
  const step = Number((span.value.energy / TICKS).toPrecision(1));
  return Array.from({ length: TICKS + 1 }, (_, place) => step * place).filter(
    (at) => at <= span.value.energy,
  );
});
</script>

<template>
  <svg
    :viewBox="`0 0 ${FRAME.width} ${FRAME.height}`"
    role="img"
    aria-label="Points and the curve fitted to them"
  >
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
    <text :x="FRAME.left - 6" :y="y(span.most / 1.2) + 5" text-anchor="end">
      {{ (span.most / 1.2).toFixed(0) }}
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
