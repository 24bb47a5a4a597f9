<script setup lang="ts">
import { computed } from 'vue';

import type { Stack, StackTier } from '@/api/types';
import { useUnits } from '@/units/useUnits';

/** What lies side by side on one board, from the front of the box, in running dimensions from the lower left. */
const { stack, tier } = defineProps<{ stack: Stack; tier: StackTier }>();
const units = useUnits();

const ROOM = { width: 320, height: 220 };
const LEFT = 56;
const TOP = 8;
const BELOW = 30;
/** Names stand within their piece, in so large letters at most. */
const LETTERS = { most: 15, least: 9, share: 0.6 };

const drawn = computed(() => {
  const scale = Math.min(ROOM.width / tier.across_mm, ROOM.height / tier.up_mm);
  const bottom = TOP + tier.up_mm * scale;
  const pieces = tier.pieces.flatMap((on) => {
    const own = stack.pieces.find(({ key }) => key === on.key);
    if (!own) return [];
    const { across_mm, up_mm } = own.wrapped;
    const [across, up] = on.turned ? [up_mm, across_mm] : [across_mm, up_mm];
    const width = across * scale;
    const letters = width / (Math.max(4, own.title.length) * LETTERS.share);
    return [
      {
        key: on.key,
        title: own.title,
        turned: on.turned,
        letters: Math.max(LETTERS.least, Math.min(LETTERS.most, letters)),
        box: {
          x: LEFT + on.left_mm * scale,
          y: bottom - (on.below_mm + up) * scale,
          width,
          height: up * scale,
        },
      },
    ];
  });
  const distinct = (sides: number[]) => [...new Set(sides.map((side) => Math.round(side)))].filter(Boolean);
  const across = distinct([...tier.pieces.map(({ left_mm }) => left_mm), tier.across_mm]);
  const up = distinct([...tier.pieces.map(({ below_mm }) => below_mm), tier.up_mm]);
  return {
    pieces,
    bottom,
    width: LEFT + tier.across_mm * scale + 30,
    board: { x: LEFT, y: TOP, width: tier.across_mm * scale, height: tier.up_mm * scale },
    across: across.map((at) => ({ at, x: LEFT + at * scale })),
    up: up.map((at) => ({ at, y: bottom - at * scale })),
  };
});
const label = computed(() => {
  const titles = drawn.value.pieces.map(({ title, turned }) => (turned ? `${title} (turned)` : title));
  return `On a board of ${units.size(tier.across_mm, tier.up_mm)}: ${titles.join(', ')}`;
});
</script>

<template>
  <svg
    :viewBox="`0 0 ${drawn.width} ${drawn.bottom + BELOW}`"
    :style="{ width: `${drawn.width}px` }"
    role="img"
    :aria-label="label"
    data-test="tier"
  >
    <rect v-bind="drawn.board" class="board" />
    <g v-for="piece in drawn.pieces" :key="piece.key">
      <rect v-bind="piece.box" class="piece" />
      <path
        :d="
          piece.turned
            ? `M${piece.box.x + 5} ${piece.box.y + 4}v${piece.box.height - 8}`
            : `M${piece.box.x + 4} ${piece.box.y + 5}h${piece.box.width - 8}`
        "
        class="top"
      />
      <text
        :x="piece.box.x + piece.box.width / 2"
        :y="piece.box.y + piece.box.height / 2"
        :font-size="piece.letters"
        text-anchor="middle"
        dominant-baseline="middle"
      >
        {{ piece.title }}
      </text>
    </g>
    <g v-for="{ at, x } in drawn.across" :key="`a${at}`">
      <path :d="`M${x} ${drawn.bottom}v6`" class="mark" />
      <text :x="x" :y="drawn.bottom + 22" class="run" text-anchor="middle">{{ units.number(at) }}</text>
    </g>
    <g v-for="{ at, y } in drawn.up" :key="`u${at}`">
      <path :d="`M${LEFT} ${y}h-6`" class="mark" />
      <text :x="LEFT - 10" :y="y + 5" class="run" text-anchor="end">{{ units.number(at) }}</text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  max-width: 100%;
}
.board {
  fill: var(--paper);
  stroke: var(--card-line);
  stroke-width: 1.5;
}
.piece {
  fill: var(--sedge);
  stroke: var(--peat);
  stroke-width: 1.5;
}
/* The top edge of the art. */
.top {
  stroke: var(--heather);
  stroke-width: 3;
}
.mark {
  stroke: var(--peat);
}
text {
  fill: var(--peat);
}
.run {
  font-size: 15px;
}
</style>
