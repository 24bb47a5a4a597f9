<script setup lang="ts">
import { computed } from 'vue';

import type { Plan } from '@/api/types';
import { useUnits } from '@/units/useUnits';

import SectionArt from './SectionArt.vue';
import { sectionOf } from './section';
import type { Cut } from './section';

const { plan, cut, times, barred } = defineProps<{
  plan: Plan;
  cut: Cut;
  times: number;
  /** Whether the piece is cloth on bars. */
  barred: boolean;
}>();
const focus = defineModel<number | undefined>('focus');
const units = useUnits();

const THIN = 80;
const FRAME = { width: 500, height: 360, margin: 34 };
/** The drawing is torn off here; what is to the right goes on. */
const TORN = 468;
const tear = `M${TORN + 8} 0L${TORN - 6} 60 ${TORN + 7} 120 ${TORN - 8} 180 ${TORN + 8} 240 ${TORN - 6} 300 ${TORN + 6} 360V360H${FRAME.width}V0Z`;

/** Where the depth is written: on its line, or above a parcel too thin for it. */
const plate = computed(() => {
  const { y, height } = section.value.outside;
  return height > THIN ? FRAME.height / 2 + 5 : y - 12;
});
const section = computed(() => sectionOf(plan, cut, times, FRAME));
const lit = computed(() => {
  const place = focus.value;
  if (place === undefined) return undefined;
  // The stack of several pieces is no layer of its own there, but the room that they lie in.
  if (place === 0 && plan.stack) return { box: section.value.piece };
  return section.value.layers[plan.layers.length - 1 - place];
});
const through = computed(() => plan.tally.outside.through_mm);
/** From the outside to the piece, or to the stack of several. */
const edge = computed(() => {
  const whole = cut === 'up' ? plan.tally.adds.bottom_mm : plan.tally.adds.left_mm;
  const stack = plan.stack ? plan.layers[0]?.adds : undefined;
  if (!stack) return whole;
  return whole - (cut === 'up' ? stack.bottom_mm : stack.left_mm);
});
const label = computed(
  () =>
    `Cut through the ${cut === 'up' ? 'bottom' : 'left'} edge: ${units.length(through.value)} through, ${units.length(edge.value)} from the box to the piece`,
);
</script>

<template>
  <svg :viewBox="`0 0 ${FRAME.width} ${FRAME.height}`" class="cut" role="img" :aria-label="label">
    <SectionArt
      :plan="plan"
      :section="section"
      :width="FRAME.width"
      :barred="barred"
      @press="(place) => (focus = place)"
    />
    <rect v-if="lit" v-bind="lit.box" class="lit" />
    <path :d="tear" class="torn" />
    <g class="dimension">
      <path
        :d="`M${TORN - 40} ${section.outside.y}v${section.outside.height}m-6 0h12M${TORN - 46} ${section.outside.y}h12`"
      />
      <rect :x="TORN - 84" :y="plate - 18" width="88" height="26" class="plate" />
      <text :x="TORN - 40" :y="plate" text-anchor="middle">{{ units.length(through) }}</text>
      <path
        :d="`M${section.outside.x} ${FRAME.height - 14}H${section.piece.x}m0 -6v12M${section.outside.x} ${FRAME.height - 20}v12`"
      />
      <text :x="section.piece.x + 8" :y="FRAME.height - 9">
        {{ units.length(edge) }} to {{ plan.stack ? 'the pieces' : 'the piece' }}
      </text>
    </g>
    <g class="words">
      <text :x="section.piece.x" y="20">{{ plan.stack ? 'front' : 'face' }}</text>
      <text :x="section.piece.x + 40" y="20" class="arrow">↑</text>
    </g>
  </svg>
</template>

<style scoped>
.cut {
  display: block;
  width: 100%;
}
.lit {
  fill: color-mix(in srgb, var(--heather) 8%, transparent);
  stroke: var(--heather);
  stroke-width: 3px;
  pointer-events: none;
}
.torn {
  fill: var(--paper);
  stroke: var(--peat);
  stroke-width: 0.8px;
}
.dimension path {
  fill: none;
  stroke: var(--peat);
  stroke-width: 1.5px;
}
.plate {
  fill: var(--paper);
  stroke: var(--sedge);
}
text {
  fill: var(--peat);
  font-size: 15px;
  font-variant-numeric: tabular-nums;
}
.words text {
  fill: var(--peat-soft);
  font-size: 14px;
}
</style>
