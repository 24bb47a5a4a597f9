<script setup lang="ts">
import { computed } from 'vue';

import { useUnits } from '@/units/useUnits';

export type Side = 'width' | 'height' | 'depth';

const { size, lit, framed } = defineProps<{
  size?: { width_mm: number; height_mm: number; depth_mm: number };
  /** The side that is being typed. */
  lit?: Side;
  framed: boolean;
}>();
const units = useUnits();

const ROOM = { width: 300, height: 320 };
const LEFT = 64;
const TOP = 26;
const LEAST_DEPTH = 10;
/** Drawn until something is measured. */
const UNMEASURED = { width_mm: 500, height_mm: 620, depth_mm: 30 };

const drawn = computed(() => {
  const { width_mm, height_mm, depth_mm } = size ?? UNMEASURED;
  const scale = Math.min(ROOM.width / width_mm, ROOM.height / height_mm);
  const [width, height] = [width_mm * scale, height_mm * scale];
  const depth = Math.max(LEAST_DEPTH, depth_mm * scale);
  const side = LEFT + width + 64;
  return { width, height, depth, side, bottom: TOP + height };
});

function words(which: Side): string {
  return size ? units.length(size[`${which}_mm`]) : which;
}
</script>

<template>
  <svg
    :viewBox="`0 0 ${drawn.side + drawn.depth + 80} ${TOP + drawn.height + 60}`"
    class="measure"
    role="img"
    aria-label="Front and side of the piece with its dimensions"
  >
    <g :class="{ unmeasured: !size }">
      <rect :x="LEFT" :y="TOP" :width="drawn.width" :height="drawn.height" class="face" />
      <rect
        v-if="framed"
        :x="LEFT + 14"
        :y="TOP + 14"
        :width="Math.max(0, drawn.width - 28)"
        :height="Math.max(0, drawn.height - 28)"
        class="glass"
      />
      <rect :x="drawn.side" :y="TOP" :width="drawn.depth" :height="drawn.height" class="edge" />
      <path :d="`M${drawn.side} ${TOP}v${drawn.height}`" class="art" />
    </g>
    <text :x="LEFT" y="16" class="view">front, as hung</text>
    <text :x="drawn.side" y="16" class="view">side</text>
    <g class="dimension" data-side="width" :class="{ lit: lit === 'width' }">
      <path :d="`M${LEFT} ${drawn.bottom + 18}h${drawn.width}m0 -7v14M${LEFT} ${drawn.bottom + 11}v14`" />
      <text :x="LEFT + drawn.width / 2" :y="drawn.bottom + 42" text-anchor="middle">
        {{ words('width') }}
      </text>
    </g>
    <g class="dimension" data-side="height" :class="{ lit: lit === 'height' }">
      <path :d="`M${LEFT - 18} ${TOP}v${drawn.height}m-7 0h14M${LEFT - 25} ${TOP}h14`" />
      <text :transform="`translate(${LEFT - 28} ${TOP + drawn.height / 2}) rotate(-90)`" text-anchor="middle">
        {{ words('height') }}
      </text>
    </g>
    <g class="dimension" data-side="depth" :class="{ lit: lit === 'depth' }">
      <path
        :d="`M${drawn.side} ${drawn.bottom + 18}h${drawn.depth}m0 -7v14M${drawn.side} ${drawn.bottom + 11}v14`"
      />
      <text :x="drawn.side + drawn.depth / 2" :y="drawn.bottom + 42" text-anchor="middle">
        {{ words('depth') }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
.measure {
  display: block;
  width: 100%;
  max-height: 440px;
}
.face {
  fill: #efe9f1;
  stroke: var(--heather);
  stroke-width: 2px;
}
.glass {
  fill: #f7f4f8;
  stroke: var(--heather);
}
.edge {
  fill: var(--wood);
  stroke: var(--peat);
}
.art {
  stroke: var(--heather);
  stroke-width: 5px;
}
.unmeasured {
  opacity: 0.35;
}
.dimension path {
  fill: none;
  stroke: var(--peat);
  stroke-width: 1.5px;
}
.dimension text {
  fill: var(--peat);
  font-size: 17px;
  font-weight: 600;
  font-variant-numeric: tabular-nums;
}
.lit path {
  stroke: var(--heather);
  stroke-width: 4px;
}
.lit text {
  fill: var(--heather);
  font-size: 20px;
}
.view {
  fill: var(--peat-soft);
  font-size: 17px;
}
</style>
