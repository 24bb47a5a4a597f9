<script setup lang="ts">
import { computed } from 'vue';

import type { MakeOf } from '@/api/types';
import { useUnits } from '@/units/useUnits';

/** A cradle board from above, with its chocks and where the piece lies, in running dimensions from the lower left. */
const { cradle, outline, width, height } = defineProps<{
  cradle: MakeOf<'cradle'>;
  /** Of the piece. */
  outline: string;
  width: number;
  height: number;
}>();
const units = useUnits();

const ROOM = { width: 300, height: 260 };
const LEFT = 64;
const TOP = 8;
const BELOW = 38;

const drawn = computed(() => {
  const scale = Math.min(ROOM.width / cradle.width_mm, ROOM.height / cradle.height_mm);
  const bottom = TOP + cradle.height_mm * scale;
  const x = (mm: number) => LEFT + mm * scale;
  const y = (mm: number) => bottom - mm * scale;
  const chocks = cradle.chocks.map(({ corners_mm }) =>
    corners_mm.map(([across = 0, up = 0]) => `${x(across)},${y(up)}`).join(' '),
  );
  return {
    chocks,
    board: { x: x(0), y: TOP, width: cradle.width_mm * scale, height: cradle.height_mm * scale },
    piece: {
      x: x(cradle.left_mm),
      y: y(cradle.below_mm + height),
      width: width * scale,
      height: height * scale,
    },
    across: [cradle.left_mm, cradle.width_mm].map((at) => ({ at, x: x(at) })),
    up: [cradle.below_mm, cradle.height_mm].map((at) => ({ at, y: y(at) })),
    curve: width * scale * 0.5,
    bottom,
  };
});
</script>

<template>
  <svg
    :viewBox="`0 0 ${LEFT + drawn.board.width + 24} ${drawn.bottom + BELOW}`"
    class="cradle"
    role="img"
    :aria-label="`The ${units.size(cradle.width_mm, cradle.height_mm)} board from above: the piece between ${cradle.chocks.length} chocks`"
  >
    <rect v-bind="drawn.board" class="board" />
    <ellipse
      v-if="outline === 'round' || outline === 'oval'"
      :cx="drawn.piece.x + drawn.piece.width / 2"
      :cy="drawn.piece.y + drawn.piece.height / 2"
      :rx="drawn.piece.width / 2"
      :ry="drawn.piece.height / 2"
      class="piece"
    />
    <path
      v-else-if="outline === 'arched'"
      :d="`M${drawn.piece.x} ${drawn.piece.y + drawn.piece.height}v${Math.min(0, drawn.curve - drawn.piece.height)}a${drawn.curve} ${Math.min(drawn.curve, drawn.piece.height)} 0 0 1 ${drawn.piece.width} 0v${Math.max(0, drawn.piece.height - drawn.curve)}Z`"
      class="piece"
    />
    <rect v-else v-bind="drawn.piece" class="piece" />
    <polygon v-for="(chock, place) in drawn.chocks" :key="place" :points="chock" class="chock" />
    <g v-for="{ at, x } in drawn.across" :key="`a${at}`">
      <path :d="`M${x} ${drawn.bottom}v8`" class="mark" />
      <text :x="x" :y="drawn.bottom + 28" text-anchor="middle">{{ units.number(at) }}</text>
    </g>
    <g v-for="{ at, y } in drawn.up" :key="`u${at}`">
      <path :d="`M${LEFT} ${y}h-8`" class="mark" />
      <text :x="LEFT - 12" :y="y + 5" text-anchor="end">{{ units.number(at) }}</text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 440px;
}
.board {
  fill: var(--paper);
  stroke: var(--peat);
  stroke-width: 1.5;
}
.piece {
  fill: none;
  stroke: var(--peat);
  stroke-dasharray: 6 4;
}
.chock {
  fill: var(--sedge);
  stroke: var(--peat);
  stroke-width: 1.5;
}
.mark {
  stroke: var(--peat);
}
text {
  fill: var(--peat);
  font-size: 18px;
}
</style>
