<script setup lang="ts">
import { computed } from 'vue';

import type { MakeOf } from '@/api/types';
import { useUnits } from '@/units/useUnits';

/** A carton laid open, seen from inside, with the lines along which it is scored and cut to make it smaller. */
const { box, which = 'first' } = defineProps<{
  box: Omit<MakeOf<'saved_box'>, 'kind'>;
  /** Which of two that are pushed into each other. */
  which?: 'first' | 'second';
}>();
const units = useUnits();

const carton = computed(() =>
  which === 'second' && box.second
    ? { sides: box.second.carton_mm, cut: box.second.cut }
    : { sides: box.carton_mm, cut: box.cut },
);

const made = computed(() => {
  const [length = 0, width = 0, depth = 0] = carton.value.sides;
  const flap = (width + box.caliper_mm) / 2;
  const starts = [0, length, length + width, 2 * length + width, 2 * (length + width)];
  const walls = [length, width, length, width].map((wide, at) => ({
    x: starts[at] ?? 0,
    wide,
    inner: at % 2 === 1,
  }));
  return { length, width, depth, flap, walls, starts, whole: 2 * (length + width), high: depth + 2 * flap };
});
const text = computed(() => made.value.whole / 46);
const view = computed(() => {
  const { whole, high } = made.value;
  return `${-text.value} ${-text.value * 1.6} ${whole + text.value * 2} ${high + text.value * 3.4}`;
});
const cut = computed(() => {
  const { cut: how } = carton.value;
  if (!how) return undefined;
  const score = made.value.flap + how.below_mm;
  return {
    score,
    below: how.below_mm,
    trims: made.value.walls.map(({ x, wide, inner }) => ({
      x,
      wide,
      y: score - (inner ? how.inner_flap_mm : how.flap_mm),
    })),
  };
});
/** Where it is cut round: across both long walls and the flaps on them. */
const round = computed(() => {
  const how = box.shorter;
  if (!how) return [];
  return made.value.walls
    .filter(({ inner }) => !inner)
    .flatMap(({ x, wide }) => {
      const from = x + (wide - how.take_out_mm) / 2;
      return how.take_out_mm > 0 ? [from, from + how.take_out_mm] : [from];
    });
});
/** The middle of a wall that nothing is cut off: the last one where two are joined. */
const plain = computed(() => {
  const { length, width, whole } = made.value;
  return box.second ? whole - width / 2 : length / 2;
});
/** The end that is cut off where it is joined to another, and the slits beside it. */
const end = computed(() => {
  const join = box.second?.join;
  if (!join) return undefined;
  const { length, width, depth, flap } = made.value;
  const isInner = join.second_outside === (which === 'first');
  const more = isInner ? join.take_off_mm : 0;
  const [left, right] = [length - more, length + width + more];
  const tongue = isInner ? (join.tongue_mm ?? 0) : 0;
  const slits =
    tongue > 0
      ? [flap, flap + depth].flatMap((y) => [
          { from: left - tongue, to: left, y },
          { from: right, to: right + tongue, y },
        ])
      : [];
  return { left, right, tongue, slits };
});
const says = computed(() => {
  const {
    sides: [length = 0, width = 0, depth = 0],
    cut: how,
  } = carton.value;
  const lines = [
    how ? `scored anew ${units.length(how.below_mm)} below the upper scores` : '',
    end.value ? 'a short end cut off' : '',
    end.value && end.value.tongue > 0 ? `four edges slit ${units.length(end.value.tongue)} back` : '',
    box.shorter ? `cut round, ${units.length(box.shorter.take_out_mm)} taken out` : '',
  ].filter(Boolean);
  return `The carton of ${units.size(length, width, depth)} laid open: ${lines.join('; ')}`;
});
</script>

<template>
  <svg :viewBox="view" role="img" :aria-label="says" class="cut-down">
    <g v-for="wall in made.walls" :key="wall.x">
      <rect :x="wall.x" :y="0" :width="wall.wide" :height="made.flap" class="flap" />
      <rect :x="wall.x" :y="made.flap" :width="wall.wide" :height="made.depth" class="wall" />
      <rect :x="wall.x" :y="made.flap + made.depth" :width="wall.wide" :height="made.flap" class="flap" />
    </g>
    <template v-if="cut">
      <rect
        v-for="trim in cut.trims"
        :key="trim.x"
        :x="trim.x"
        :y="0"
        :width="trim.wide"
        :height="Math.max(0, trim.y)"
        class="off"
      />
      <line x1="0" :x2="made.whole" :y1="cut.score" :y2="cut.score" class="score" />
      <line
        v-for="at in made.starts.slice(1, 4)"
        :key="at"
        :x1="at"
        :x2="at"
        :y1="made.flap"
        :y2="cut.score"
        class="knife"
      />
      <line
        v-for="trim in cut.trims"
        :key="`t${trim.x}`"
        :x1="trim.x"
        :x2="trim.x + trim.wide"
        :y1="trim.y"
        :y2="trim.y"
        class="knife"
      />
      <text :x="made.whole / 2" :y="-text * 0.5" :font-size="text">
        off: {{ units.length(cut.below) }} of each upper flap
      </text>
      <text :x="plain" :y="cut.score + text" :font-size="text">
        score {{ units.length(cut.below) }} below
      </text>
    </template>
    <template v-if="end">
      <rect :x="end.left" :y="0" :width="end.right - end.left" :height="made.high" class="off" />
      <line
        v-for="at in [end.left, end.right]"
        :key="`e${at}`"
        :x1="at"
        :x2="at"
        y1="0"
        :y2="made.high"
        class="knife"
      />
      <line
        v-for="slit in end.slits"
        :key="`s${slit.from}/${slit.y}`"
        :x1="slit.from"
        :x2="slit.to"
        :y1="slit.y"
        :y2="slit.y"
        class="knife slit"
      />
      <text :x="(end.left + end.right) / 2" :y="made.high + text * 1.2" :font-size="text">
        off: this end{{ end.tongue > 0 ? `; slit ${units.length(end.tongue)} back` : '' }}
      </text>
    </template>
    <line v-for="at in round" :key="`r${at}`" :x1="at" :x2="at" y1="0" :y2="made.high" class="knife" />
    <text v-if="round.length > 0" :x="made.length / 2" :y="made.high + text * 1.2" :font-size="text">
      {{ round.length > 2 ? `out: ${units.length(box.shorter?.take_out_mm ?? 0)}` : 'cut round here' }}
    </text>
  </svg>
</template>

<style scoped>
.cut-down {
  display: block;
  width: 100%;
  max-width: 640px;
  max-height: 260px;
}
.wall,
.flap {
  fill: var(--card);
  stroke: var(--card-line);
  stroke-width: 1px;
  vector-effect: non-scaling-stroke;
}
.wall {
  fill: var(--paper);
}
.off {
  fill: var(--bog-cotton);
  stroke: var(--card-line);
  stroke-dasharray: 2 3;
  vector-effect: non-scaling-stroke;
}
.score {
  stroke: var(--peat);
  stroke-width: 2px;
  stroke-dasharray: 8 5;
  vector-effect: non-scaling-stroke;
}
.knife {
  stroke: var(--peat);
  stroke-width: 2px;
  vector-effect: non-scaling-stroke;
}
text {
  fill: var(--peat);
  text-anchor: middle;
  dominant-baseline: central;
}
</style>
