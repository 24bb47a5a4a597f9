<script setup lang="ts">
import { computed } from 'vue';

import type { MakeOf } from '@/api/types';
import { useUnits } from '@/units/useUnits';

const { pocket } = defineProps<{ pocket: MakeOf<'card_pockets'> }>();
const units = useUnits();

const ROOM = 150;
const PAD = { left: 8, top: 8, right: 92, bottom: 30 };

const lines = computed(() => {
  const { leg_mm: leg, wall_a_mm: a, wall_b_mm: b, blank_a_mm: wide, blank_b_mm: high } = pocket;
  const scale = ROOM / Math.max(wide, high);
  const x = (mm: number) => PAD.left + mm * scale;
  const y = (mm: number) => PAD.top + (high - mm) * scale;
  // From the corner with the face: wall A and flap to the right, wall B and flap above.
  const at = ([along, up]: readonly number[]) => `${x(along ?? 0)},${y(up ?? 0)}`;
  return {
    outline: pocket.lines.cut_mm.map(at).join(' '),
    slit: `M${pocket.lines.slit_mm.map(at).join('L')}`,
    scores: pocket.lines.scores_mm.map((score) => `M${score.map(at).join('L')}`).join(''),
    width: x(wide) + PAD.right,
    height: y(0) + PAD.bottom,
    right: x(wide),
    ups: [leg, leg + b, high].map((mm) => ({ mm, at: y(mm) })),
    acrosses: [leg, leg + a, wide].map((mm) => ({ mm, at: x(mm) })),
    base: y(0),
    face: { x: x(leg / 2), y: y(leg / 2) },
  };
});
</script>

<template>
  <svg
    :viewBox="`0 0 ${lines.width} ${lines.height}`"
    class="pocket"
    role="img"
    :aria-label="`Blank of a corner pocket, ${units.size(pocket.blank_a_mm, pocket.blank_b_mm)}, leg ${units.length(pocket.leg_mm)}, walls ${units.length(pocket.wall_a_mm)} and ${units.length(pocket.wall_b_mm)}`"
  >
    <polygon :points="lines.outline" class="shape" />
    <path :d="lines.scores" class="score" />
    <path :d="lines.slit" class="slit" />
    <text :x="lines.face.x" :y="lines.face.y + 5" text-anchor="middle">face</text>
    <g v-for="up in lines.ups" :key="`u${up.mm}`">
      <path :d="`M${lines.right + 4} ${up.at}h8`" class="tick" />
      <text :x="lines.right + 16" :y="up.at + 5">{{ units.number(up.mm) }}</text>
    </g>
    <g v-for="(run, place) in lines.acrosses" :key="`a${run.mm}`">
      <path :d="`M${run.at} ${lines.base + 3}v7`" class="tick" />
      <text
        :x="run.at"
        :y="lines.base + 24"
        :text-anchor="place === 0 ? 'end' : place === 1 ? 'middle' : 'start'"
      >
        {{ units.number(run.mm) }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
.pocket {
  width: 250px;
  max-width: 100%;
}
.shape {
  fill: var(--blank);
  stroke: var(--peat);
  stroke-width: 2px;
}
.slit {
  stroke: var(--peat);
  stroke-width: 2px;
}
.score {
  fill: none;
  stroke: var(--peat);
  stroke-width: 1.5px;
  stroke-dasharray: 7 4;
}
.tick {
  stroke: var(--peat);
}
text {
  fill: var(--peat);
  font-size: 14px;
  font-variant-numeric: tabular-nums;
}
</style>
