<script setup lang="ts">
import { computed } from 'vue';

import type { Plan } from '@/api/types';
import { useUnits } from '@/units/useUnits';

import MaterialBand from './MaterialBand.vue';
import type { Band } from './band';
import { sectionOf } from './section';
import type { Cut } from './section';

const { plan, cut, times, barred, wide } = defineProps<{
  plan: Plan;
  cut: Cut;
  times: number;
  /** Whether the piece is cloth on bars. */
  barred: boolean;
  /** Drawn low and wide, where it stands above other things. */
  wide?: boolean;
}>();
const focus = defineModel<number | undefined>('focus');
const units = useUnits();

const THIN = 80;
const frame = computed(() =>
  wide ? { width: 900, height: 260, margin: 30 } : { width: 500, height: 360, margin: 34 },
);
/** The drawing is torn off here; what is to the right goes on. */
const torn = computed(() => frame.value.width - 32);
const tear = computed(() => {
  const [at, { width, height }] = [torn.value, frame.value];
  const steps = [-6, 7, -8, 8, -6, 6].map((by, step) => `${at + by} ${(height * (step + 1)) / 6}`);
  return `M${at + 8} 0L${steps.join(' ')}H${width}V0Z`;
});

/** Where the depth is written: on its line, or above a parcel too thin for it. */
const plate = computed(() => {
  const { y, height } = section.value.outside;
  return height > THIN ? frame.value.height / 2 + 5 : y - 12;
});
const section = computed(() => sectionOf(plan, cut, times, frame.value));
const places = computed(() => section.value.layers.map((_, place) => plan.layers.length - 1 - place));
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
/** The pad in the hollow behind a canvas, thinner than its bars. */
const hollow = computed<Band | undefined>(() => {
  if (plan.stack) return undefined;
  const make = plan.layers.find((layer) => layer.make.kind === 'back_fill')?.make;
  if (make?.kind !== 'back_fill') return undefined;
  const { piece, scale } = section.value;
  const x = piece.x + bar.value.width + 6;
  const height = make.thickness_mm * scale;
  const y = piece.y + piece.height - height;
  return { x, y, width: frame.value.width - x, height, pattern: 'foam', outward: 'down', turns: 1 };
});
const bar = computed(() => {
  const { piece } = section.value;
  return { width: Math.min(piece.height * 1.3, 70), height: piece.height - 4 };
});
const label = computed(
  () =>
    `Cut through the ${cut === 'up' ? 'bottom' : 'left'} edge: ${units.length(through.value)} through, ${units.length(edge.value)} from the box to the piece`,
);
</script>

<template>
  <svg :viewBox="`0 0 ${frame.width} ${frame.height}`" class="cut" role="img" :aria-label="label">
    <g v-for="(layer, place) in section.layers" :key="place" @click="focus = places[place]">
      <rect v-bind="layer.box" class="air" />
      <MaterialBand v-for="(band, part) in layer.bands" :key="part" :band="band" />
    </g>
    <template v-if="section.members.length > 0">
      <rect v-bind="section.piece" class="air" />
      <MaterialBand v-for="(band, at) in section.boards" :key="`board-${at}`" :band="band" />
      <g v-for="(member, at) in section.members" :key="`member-${at}`" data-test="member">
        <rect v-bind="member.wrapped" class="wrapped" />
        <rect v-bind="member.piece" class="piece" />
        <path
          :d="`M${member.piece.x} ${member.piece.y + (member.faces_front ? 0 : member.piece.height)}H${frame.width}`"
          class="art"
        />
        <text
          v-if="member.piece.height > 16"
          :x="member.piece.x + 10"
          :y="member.piece.y + member.piece.height / 2 + 5"
        >
          {{ member.title }}
        </text>
      </g>
    </template>
    <rect v-else v-bind="section.piece" class="piece" />
    <template v-if="barred && section.members.length === 0">
      <rect
        :x="section.piece.x + 3"
        :y="section.piece.y + 4"
        :width="bar.width"
        :height="bar.height"
        class="wood"
      />
    </template>
    <MaterialBand v-if="hollow" :band="hollow" />
    <path
      v-if="section.members.length === 0"
      :d="`M${section.piece.x} ${section.piece.y + section.piece.height}V${section.piece.y}H${frame.width}`"
      class="art"
    />
    <path
      :d="`M${section.outside.x} ${section.outside.y + section.outside.height}H${frame.width}`"
      class="bulge"
    />
    <rect v-if="lit" v-bind="lit.box" class="lit" />
    <path :d="tear" class="torn" />
    <g class="dimension">
      <path
        :d="`M${torn - 40} ${section.outside.y}v${section.outside.height}m-6 0h12M${torn - 46} ${section.outside.y}h12`"
      />
      <rect :x="torn - 84" :y="plate - 18" width="88" height="26" class="plate" />
      <text :x="torn - 40" :y="plate" text-anchor="middle">{{ units.length(through) }}</text>
      <path
        :d="`M${section.outside.x} ${frame.height - 14}H${section.piece.x}m0 -6v12M${section.outside.x} ${frame.height - 20}v12`"
      />
      <text :x="section.piece.x + 8" :y="frame.height - 9">
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
.air {
  fill: var(--paper);
}
.piece {
  fill: #f0ebdd;
}
.wrapped {
  fill: #e4ecf0;
  stroke: var(--card-line);
  stroke-width: 0.8px;
}
.wood {
  fill: var(--wood);
  stroke: var(--card-line);
}
.art {
  fill: none;
  stroke: var(--heather);
  stroke-width: 6px;
}
.bulge {
  stroke: var(--peat-soft);
  stroke-dasharray: 2 4;
}
.lit {
  fill: rgb(109 74 124 / 8%);
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
