<script setup lang="ts">
import { keepPreviousData } from '@tanstack/vue-query';
import { scaleLinear, scaleLog } from 'd3-scale';
import { line } from 'd3-shape';
import { computed } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import type { CurveAt, CushionCurve } from '@/api/types';

/** A cushion curve: shock over static stress, at one drop and one thickness, with a plan's point on it. */
const {
  curve,
  thickness,
  drop,
  limit,
  point,
  name = 'this plan',
} = defineProps<{
  curve: CushionCurve;
  /** In millimetres. */
  thickness: number;
  /** In millimetres. */
  drop: number;
  /** The shock that the piece takes. */
  limit?: number;
  /** Where the plan stands; without a shock it is past the tested range. */
  point?: { static_kpa: number; peak_g?: number | null };
  /** What stands there. */
  name?: string;
}>();

const FRAME = { width: 460, height: 250, left: 46, right: 12, top: 14, bottom: 42 };
const MOST_G = 220;
const TICKS_G = [25, 50, 100, 150, 200];

const body = computed(() => ({
  a_kpa: curve.a_kpa,
  b_m3_per_kj: curve.b_m3_per_kj,
  thickness_mm: thickness,
  drop_mm: drop,
  epsilon_min: curve.epsilon_min_kj_m3 ?? null,
  epsilon_max: curve.epsilon_max_kj_m3 ?? null,
}));
const { data } = useRead({
  queryKey: computed(() => ['cushion-curve', body.value]),
  queryFn: ({ signal }) => answer(api.POST('/api/v1/sums/cushion-curve', { body: body.value, signal })),
  // A curve is a formula: the same question has the same answer.
  staleTime: Infinity,
  placeholderData: keepPreviousData,
});
const points = computed(() => data.value?.points ?? []);

const x = computed(() => {
  const stresses = points.value.map(({ static_kpa }) => static_kpa);
  if (point) stresses.push(point.static_kpa);
  const domain = stresses.length > 0 ? [Math.min(...stresses) * 0.9, Math.max(...stresses) * 1.1] : [1, 10];
  return scaleLog(domain, [FRAME.left, FRAME.width - FRAME.right]);
});
const y = scaleLinear([0, MOST_G], [FRAME.height - FRAME.bottom, FRAME.top]).clamp(true);

function path(tested: boolean): string | undefined {
  const drawn = line<CurveAt>()
    .defined((at) => at.tested === tested && at.peak_g <= MOST_G)
    .x((at) => x.value(at.static_kpa))
    .y((at) => y(at.peak_g));
  return drawn(points.value) ?? undefined;
}

/** So many numbers of each decade have room. */
const NUMBERED = ['1', '2', '5'];
const ticks = computed(() =>
  x.value
    .ticks()
    .map((kpa) => ({ kpa, text: String(+kpa.toPrecision(2)) }))
    .filter(({ text }) => NUMBERED.includes(text.replace(/[0.]/g, ''))),
);
const says = computed(() => {
  const stands = point
    ? `${name} at ${point.static_kpa.toPrecision(2)} kPa, ${point.peak_g == null ? 'past what was tested' : `${point.peak_g.toFixed(0)} G`}`
    : '';
  const takes = limit ? `the piece takes ${limit.toFixed(0)} G` : '';
  return ['Cushion curve: shock over static stress', stands, takes].filter(Boolean).join('; ');
});
const marked = computed(() => {
  if (!point || points.value.length === 0) return undefined;
  const past = point.peak_g == null || point.peak_g > MOST_G;
  return { x: x.value(point.static_kpa), y: past ? FRAME.top : y(point.peak_g ?? 0), past };
});
const base = FRAME.height - FRAME.bottom;
</script>

<template>
  <svg :viewBox="`0 0 ${FRAME.width} ${FRAME.height}`" role="img" :aria-label="says">
    <g class="axis">
      <template v-for="g in TICKS_G" :key="g">
        <path :d="`M${FRAME.left} ${y(g)}H${FRAME.width - FRAME.right}`" class="grid" />
        <text :x="FRAME.left - 6" :y="y(g) + 5" text-anchor="end">{{ g }}</text>
      </template>
      <text x="4" :y="FRAME.top + 2">G</text>
      <template v-for="{ kpa, text } in ticks" :key="kpa">
        <path :d="`M${x(kpa)} ${base}v5`" />
        <text :x="x(kpa)" :y="base + 19" text-anchor="middle">{{ text }}</text>
      </template>
      <path :d="`M${FRAME.left} ${FRAME.top}V${base}H${FRAME.width - FRAME.right}`" />
      <text :x="FRAME.width - FRAME.right" :y="FRAME.height - 5" text-anchor="end">static stress, kPa</text>
    </g>
    <template v-if="limit">
      <path :d="`M${FRAME.left} ${y(limit)}H${FRAME.width - FRAME.right}`" class="limit" />
      <text :x="FRAME.left + 6" :y="y(limit) - 6" class="limit-word">
        the piece takes {{ limit.toFixed(0) }} G
      </text>
    </template>
    <path :d="path(false)" class="curve guessed" />
    <path :d="path(true)" class="curve" />
    <g v-if="marked" class="point">
      <path v-if="marked.past" :d="`M${marked.x} ${base}V${FRAME.top + 10}m-6 8l6 -9 6 9`" />
      <circle v-else :cx="marked.x" :cy="marked.y" r="7" />
      <text
        :x="marked.x + (marked.x > FRAME.width / 2 ? -12 : 12)"
        :y="marked.past ? FRAME.top + 34 : Math.min(marked.y + 24, base - 6)"
        :text-anchor="marked.x > FRAME.width / 2 ? 'end' : 'start'"
      >
        {{ marked.past ? `${name}, past what is shown` : `${name}, ${point?.peak_g?.toFixed(0)} G` }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}
.axis path {
  fill: none;
  stroke: var(--peat);
}
.axis .grid {
  stroke: var(--sedge);
}
text {
  fill: var(--peat);
  font-size: 14px;
  font-variant-numeric: tabular-nums;
}
.curve {
  fill: none;
  stroke: var(--peat);
  stroke-width: 2.5px;
}
.guessed {
  stroke-dasharray: 3 5;
}
.limit {
  stroke: var(--rowan);
  stroke-dasharray: 9 4;
  stroke-width: 2px;
}
.limit-word {
  fill: var(--rowan);
}
.point circle {
  fill: var(--heather);
  stroke: var(--paper);
  stroke-width: 2px;
}
.point path {
  fill: none;
  stroke: var(--heather);
  stroke-width: 3px;
}
.point text,
.limit-word {
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
}
.point text {
  fill: var(--heather);
  font-weight: 600;
}
</style>
