<script setup lang="ts">
import { computed } from 'vue';

import type { Layer, Plan } from '@/api/types';
import { layerWords } from '@/words/layers';
import SumOf from '@/parts/SumOf.vue';
import { grams } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import SectionArt from './SectionArt.vue';
import { sectionOf } from './section';
import type { Cut, Frame } from './section';

/**
 * The whole parcel cut through, broken in the middle: both its ends to one scale. Its layers are handles; a plan that is not taken yet
 * lies dashed over it.
 */
const { plan, ghost, cut, times, barred } = defineProps<{
  plan: Plan;
  ghost?: Plan | undefined;
  cut: Cut;
  times: number;
  /** Whether the piece is cloth on bars. */
  barred: boolean;
}>();
/** The layer that is lifted, by its place in the plan. */
const focus = defineModel<number | undefined>('focus');
const emit = defineEmits<{ open: [place: number] }>();
const units = useUnits();

const WHOLE = 1200;
const HALF = { width: WHOLE / 2, height: 270, margin: 26, side: 96 };
const FAR = { ...HALF, far: true };
/** Half of the gap at which the piece is broken off. */
const GAP = 5;
/** The gap, with its two torn sides. */
const torn = [-1, 1].map((side) => {
  const at = (by: number) => WHOLE / 2 + side * GAP + by;
  const steps = [6, -5, 5, -6].map((by, step) => `${at(by)} ${(HALF.height * (step + 1)) / 4}`);
  return `M${at(0)} 0L${steps.join(' ')}`;
});
/** How far a layer is lifted when it is pointed at. */
const LIFT = 7;
const HALVES = [undefined, `translate(${WHOLE} 0) scale(-1 1)`];

const section = computed(() => sectionOf(plan, cut, times, HALF));
/** The other end, to the same scale and drawn mirrored. */
const far = computed(() => sectionOf(plan, cut, times, FAR, section.value));
const halves = computed(() => [section.value, far.value]);
const right = computed(() => WHOLE - far.value.outside.x);
const first = computed(() => (plan.stack ? 1 : 0));
/** From outside inward, each with its place in the plan. */
const layers = computed(() =>
  section.value.layers.map(({ layer, box }, at) => {
    const end = WHOLE - (far.value.layers[at]?.box.x ?? box.x);
    return { layer, box: { ...box, width: end - box.x }, place: plan.layers.length - 1 - at };
  }),
);
/** What of a layer is seen in the drawing: what it is of, and how thick, to the tenth of a millimetre. */
const made = ({ material, make, adds }: Layer) => {
  const { left_mm, right_mm, top_mm, bottom_mm, front_mm, back_mm } = adds;
  const sides = [left_mm, right_mm, top_mm, bottom_mm, front_mm, back_mm];
  return [material, make.kind, ...sides.map((side) => side.toFixed(1))].join(' ');
};
/** What the plan that is not taken yet would have otherwise: outlines of both its ends, and the places of what would go. */
const changed = computed(() => {
  if (!ghost) return { outlines: [[], []], gone: new Set<string>() };
  const now = new Map(plan.layers.map((layer) => [layer.slot as string, made(layer)]));
  const slots = new Set(ghost.layers.map(({ slot }) => slot as string));
  const outlined = (frame: Frame) => {
    const then = sectionOf(ghost, cut, times, frame, section.value).layers;
    const others = then.filter(({ layer }) => now.get(layer.slot) !== made(layer));
    return [...then.slice(0, 1).map(({ box }) => box), ...others.flatMap(({ bands }) => bands)];
  };
  return {
    outlines: [outlined(HALF), outlined(FAR)],
    gone: new Set([...now.keys()].filter((slot) => !slots.has(slot))),
  };
});
const lit = computed(() => (focus.value === undefined ? undefined : plan.layers[focus.value]));
const told = computed(() => {
  const layer = lit.value;
  if (!layer) return undefined;
  const { name, make } = layerWords(layer, units);
  return { name, make, layer };
});
const named = (layer: Layer) => layerWords(layer, units).name;
const across = computed(() => (cut === 'up' ? plan.tally.outside.up_mm : plan.tally.outside.across_mm));
const ends = computed(() => (cut === 'up' ? 'bottom and top edge' : 'left and right edge'));
const label = computed(
  () =>
    `Cut through, ${ends.value}: ${units.length(plan.tally.outside.through_mm)} through, ${units.length(across.value)} long. Each layer is a button.`,
);

function move(by: number): void {
  const last = plan.layers.length - 1;
  const from = focus.value ?? (by > 0 ? first.value - 1 : last + 1);
  focus.value = Math.max(first.value, Math.min(last, from + by));
}
</script>

<template>
  <div class="whole">
    <svg
      :viewBox="`0 0 ${WHOLE} ${HALF.height + 22}`"
      role="group"
      :aria-label="label"
      @keydown.up.prevent="move(1)"
      @keydown.down.prevent="move(-1)"
      @mouseleave="focus = undefined"
    >
      <g v-for="(turn, half) in HALVES" :key="half" :transform="turn" aria-hidden="true">
        <SectionArt
          :plan="plan"
          :section="halves[half] ?? section"
          :width="HALF.width"
          :barred="barred"
          :mute="half > 0"
          :gone="changed.gone"
          :lifted="focus"
        />
        <rect
          v-for="(band, at) in changed.outlines[half]"
          :key="`ghost-${at}`"
          :x="band.x"
          :y="band.y"
          :width="band.width"
          :height="band.height"
          class="ghost"
          data-test="ghost"
        />
      </g>
      <rect
        v-for="layer in layers"
        :key="layer.place"
        :x="layer.box.x"
        :y="layer.box.y - (focus === layer.place ? LIFT : 0)"
        :width="layer.box.width"
        :height="layer.box.height"
        class="handle"
        :class="{ lit: focus === layer.place }"
        role="button"
        tabindex="0"
        :aria-label="named(layer.layer)"
        :data-handle="layer.layer.slot"
        @mouseenter="focus = layer.place"
        @focus="focus = layer.place"
        @click="emit('open', layer.place)"
        @keydown.enter.prevent="emit('open', layer.place)"
        @keydown.space.prevent="emit('open', layer.place)"
      />
      <g class="dimension" aria-hidden="true">
        <path v-for="side in torn" :key="side" :d="side" class="torn" />
        <path
          :d="`M${section.outside.x} ${HALF.height + 6}H${right}m0 -6v12M${section.outside.x} ${HALF.height}v12`"
        />
        <rect :x="HALF.width - 56" :y="HALF.height - 8" width="112" height="28" class="plate" />
        <text :x="HALF.width" :y="HALF.height + 12" text-anchor="middle">{{ units.length(across) }}</text>
        <path :d="`M44 ${section.outside.y}v${section.outside.height}m-6 0h12M38 ${section.outside.y}h12`" />
        <rect
          x="2"
          :y="section.outside.y + section.outside.height / 2 - 14"
          width="84"
          height="28"
          class="plate"
        />
        <text x="8" :y="section.outside.y + section.outside.height / 2 + 6">
          {{ units.length(plan.tally.outside.through_mm) }}
        </text>
      </g>
    </svg>
    <p class="told" aria-live="polite" data-test="told">
      <template v-if="told">
        <strong>{{ told.name }}</strong>
        <span class="figure"
          >{{ told.make }} · {{ grams(told.layer.weight.mass_g) }} ·
          <SumOf of="layer" :sum="told.layer.cost" /> · {{ told.layer.minutes.toFixed(0) }} min</span
        >
        <span class="soft">{{ told.layer.why }}</span>
      </template>
      <span v-else-if="ghost" class="soft ghostly">Dashed: what you point at, not yet taken.</span>
      <span v-else class="soft hint"
        >Point at a layer, or use the arrow keys; press it for what else it could be.</span
      >
    </p>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

svg {
  display: block;
  width: 100%;
}
.ghost {
  fill: none;
  stroke: var(--heather);
  stroke-dasharray: 7 5;
  stroke-width: 2px;
}
.handle {
  fill: transparent;
  cursor: pointer;
}
.handle:focus {
  outline: none;
}
.handle.lit {
  stroke: var(--heather);
  stroke-width: 3px;
}
.handle:focus-visible {
  stroke: var(--heather);
  stroke-width: 4px;
}
.dimension path {
  fill: none;
  stroke: var(--peat);
  stroke-width: 1.5px;
}
.plate {
  fill: var(--paper);
}
.dimension .torn {
  stroke: var(--paper);
  stroke-width: 7px;
}
text {
  fill: var(--peat);
  font-size: 16px;
  font-variant-numeric: tabular-nums;
}
.whole {
  container-type: inline-size;
}
@container (max-width: 760px) {
  text {
    font-size: 21px;
  }
}
@container (max-width: 420px) {
  text {
    font-size: 30px;
  }
}
.told {
  min-height: 3.2em;
  margin: 4px 0 0;
  padding: 0 16px 6px;
  line-height: 1.4;
}
.told .soft {
  display: block;
}
.ghostly {
  color: var(--heather);
  font-weight: 600;
}
@include at.phone {
  /* Too small for a thumb: the list below does the same. */
  .handle {
    display: none;
  }
  .hint {
    display: none;
  }
}
</style>
