<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core';
import { computed } from 'vue';

import type { Blank } from '@/api/types';
import { useUnits } from '@/units/useUnits';

const { blank } = defineProps<{ blank: Blank }>();
/** On a phone it is wider than the page, and moved along by thumb or by keys. */
const narrow = useMediaQuery('(max-width: 640px)');
const units = useUnits();

const WIDTH = 700;
const MARGIN = { left: 10, right: 112, top: 14, bottom: 84 };
/** Flaps and tabs are too small to be called anything, and known by their place. */
const UNCALLED: readonly string[] = ['flap', 'tab'];
/** A letter of a name is about so wide, and a line of it so high. */
const LETTER = 8;
const LINE = 16;
/** Running figures closer than this would print over each other, and go a row lower. */
const FIGURE_ROOM = 56;
const FIGURE_HEIGHT = 18;

const scale = computed(() => (WIDTH - MARGIN.left - MARGIN.right) / blank.width_mm);
const height = computed(() => blank.height_mm * scale.value + MARGIN.top + MARGIN.bottom);
const x = (mm: number) => MARGIN.left + mm * scale.value;
const y = (mm: number) => MARGIN.top + (blank.height_mm - mm) * scale.value;

const panels = computed(() =>
  blank.panels.map(({ name, role, outline }) => {
    const across = outline.map((point) => x(point.x_mm));
    const up = outline.map((point) => y(point.y_mm));
    const points = outline.map((point) => `${x(point.x_mm)},${y(point.y_mm)}`).join(' ');
    const middle = (of: number[]) => (Math.min(...of) + Math.max(...of)) / 2;
    const reach = (of: number[]) => Math.max(...of) - Math.min(...of);
    const long = name.length * LETTER;
    const lies = reach(across) >= long && reach(up) >= LINE;
    const stands = reach(up) >= long && reach(across) >= LINE;
    return {
      role,
      points,
      name: UNCALLED.includes(role) || !(lies || stands) ? undefined : name,
      cx: middle(across),
      cy: middle(up),
      narrow: !lies,
    };
  }),
);

const TICK = 8;
/** A score is dashed, with a tick on the side that it folds to. */
const scores = computed(() =>
  blank.hinges.map(({ from, to, between }) => {
    const [x1, y1, x2, y2] = [x(from.x_mm), y(from.y_mm), x(to.x_mm), y(to.y_mm)];
    const inner = panels.value[between[0] ?? 0];
    const [mx, my] = [(x1 + x2) / 2, (y1 + y2) / 2];
    const upright = Math.abs(x1 - x2) < 0.01;
    const towards = (middle: number, at: number) => Math.sign(middle - at) * TICK;
    const tick = upright
      ? `M${mx} ${my}h${towards(inner?.cx ?? mx, mx)}`
      : `M${mx} ${my}v${towards(inner?.cy ?? my, my)}`;
    return { line: `M${x1} ${y1}L${x2} ${y2}`, tick };
  }),
);

interface Run {
  mm: number;
  at: number;
  row: number;
}

/** Puts figures that would meet into the next row. */
function spread(runs: readonly number[], place: (mm: number) => number, room: number): Run[] {
  const last: number[] = [];
  return runs.map((mm) => {
    const at = place(mm);
    let row = last.findIndex((taken) => Math.abs(at - taken) >= room);
    if (row < 0) row = last.length;
    last[row] = at;
    return { mm, at, row };
  });
}

const across = computed(() => spread(blank.runs_across_mm, x, FIGURE_ROOM));
const up = computed(() => spread(blank.runs_up_mm, y, FIGURE_HEIGHT));
const rulerY = computed(() => y(0) + 16);
const rulerX = computed(() => x(blank.width_mm) + 16);
const label = computed(
  () => `Blank seen from inside, ${units.size(blank.width_mm, blank.height_mm)}, with running dimensions`,
);
</script>

<template>
  <figure :tabindex="narrow ? 0 : undefined">
    <figcaption class="legend">
      <span
        ><svg width="36" height="12"><path d="M0 6H36" class="cut" /></svg> cut</span
      >
      <span
        ><svg width="36" height="16">
          <path d="M0 6H36" class="score" />
          <path d="M18 6v8" class="tick" />
        </svg>
        score, folds toward the tick</span
      >
      <span v-if="blank.laps_over"
        ><svg width="36" height="14">
          <path d="M4 12L10 2M12 12L18 2M20 12L26 2M28 12L34 2" class="tape" />
        </svg>
        tape, lapped outside {{ blank.laps_over }}</span
      >
    </figcaption>
    <svg :viewBox="`0 0 ${WIDTH} ${height}`" class="blank" role="img" :aria-label="label">
      <g v-for="(panel, place) in panels" :key="place">
        <polygon :points="panel.points" class="panel-shape" :class="panel.role" />
        <polygon v-if="panel.role === 'tab'" :points="panel.points" fill="url(#pattern-tape)" />
        <text
          v-if="panel.name"
          :transform="`translate(${panel.cx} ${panel.cy + 5})${panel.narrow ? ' rotate(-90)' : ''}`"
          text-anchor="middle"
        >
          {{ panel.name }}
        </text>
      </g>
      <g v-for="(score, place) in scores" :key="`score-${place}`">
        <path :d="score.line" class="mask" />
        <path :d="score.line" class="score" />
        <path :d="score.tick" class="tick" />
      </g>
      <g class="ruler">
        <path :d="`M${x(0)} ${rulerY}H${x(blank.width_mm)}`" />
        <template v-for="run in across" :key="run.mm">
          <path :d="`M${run.at} ${rulerY - 5}v10`" />
          <text :x="run.at" :y="rulerY + 20 + run.row * FIGURE_HEIGHT" text-anchor="middle" class="figure">
            {{ units.number(run.mm) }}
          </text>
        </template>
        <path :d="`M${rulerX} ${y(0)}V${y(blank.height_mm)}`" />
        <template v-for="run in up" :key="`up-${run.mm}`">
          <path :d="`M${rulerX - 5} ${run.at}h10`" />
          <text :x="rulerX + 10 + run.row * 46" :y="run.at + 5" class="figure">
            {{ units.number(run.mm) }}
          </text>
        </template>
      </g>
    </svg>
  </figure>
</template>

<style scoped lang="scss">
@use '@/styles/at';

figure {
  margin: 0;
  padding: 12px;
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 24px;
  margin-bottom: 8px;
}
.blank {
  display: block;
  width: 100%;
  max-height: 560px;
}
.panel-shape {
  fill: var(--blank);
  stroke: var(--peat);
  stroke-width: 2px;
}
.tab {
  fill: var(--lap);
}
.cut {
  stroke: var(--peat);
  stroke-width: 2px;
}
.mask {
  stroke: var(--blank);
  stroke-width: 3px;
}
.score {
  fill: none;
  stroke: var(--peat);
  stroke-width: 1.5px;
  stroke-dasharray: 10 5;
}
.tick,
.tape,
.ruler path {
  fill: none;
  stroke: var(--peat);
  stroke-width: 1.5px;
}
text {
  fill: var(--peat);
  font-size: 14px;
}
/* On a phone the net is followed with a thumb: no label is smaller than it can be read. */
@include at.phone {
  figure {
    overflow-x: auto;
  }
  .blank {
    width: 760px;
    max-width: none;
  }
}
</style>
