<script setup lang="ts">
import { computed } from 'vue';

import type { BearingPoint } from '@/api/types';
import { useUnits } from '@/units/useUnits';

export type Side = 'width' | 'height' | 'depth';

const {
  size,
  lit,
  piece,
  pane,
  bearing = [],
  corners = [],
} = defineProps<{
  size?: { width_mm: number; height_mm: number; depth_mm: number };
  /** The side that is being typed. */
  lit?: Side;
  /** What is known of the piece. */
  piece: {
    construction: string;
    outline: string;
    count: number | null;
    hardware: string;
  };
  /** What is seen within its frame, width and height. */
  pane?: number[];
  /** Where it bears, when it is no rectangle. */
  bearing?: BearingPoint[];
  /** Its corners, when it is a polygon. */
  corners?: BearingPoint[];
}>();
const units = useUnits();

const ROOM = { width: 300, height: 320 };
const LEFT = 64;
const FRONT_AT = 26;
const LEAST_DEPTH = 10;
const ANY_MOULDING = 14;
/** So many pieces of a set are drawn behind the first. */
const MOST_BEHIND = 4;
const APART = 5;
/** Drawn until something is measured. */
const UNMEASURED = { width_mm: 500, height_mm: 620, depth_mm: 30 };

const drawn = computed(() => {
  const { width_mm, height_mm, depth_mm } = size ?? UNMEASURED;
  const scale = Math.min(ROOM.width / width_mm, ROOM.height / height_mm);
  const [width, height] = [width_mm * scale, height_mm * scale];
  const depth = Math.max(LEAST_DEPTH, depth_mm * scale);
  const side = LEFT + width + 64;
  return { width, height, depth, side, bottom: TOP.value + height };
});

/** How wide the frame is drawn. */
const moulding = computed(() => {
  if (!size || pane?.[0] === undefined) return ANY_MOULDING;
  return ((size.width_mm - pane[0]) / 2) * (drawn.value.width / size.width_mm);
});
const framed = computed(() => piece.construction.startsWith('framed_') || piece.construction === 'mirror');
const loose = computed(() => piece.construction.startsWith('loose_'));
/** Sheets or panels that lie behind the first one. */
const behind = computed(() => Math.min(Math.max(0, (piece.count ?? 1) - 1), MOST_BEHIND));

/** Room above for the name of the view, and for what lies behind. */
const TOP = computed(() => FRONT_AT + behind.value * APART);

/** The outline, so far inside the sides. */
function outline(inset: number): string {
  const { width, height } = drawn.value;
  const [left, top] = [LEFT + inset, TOP.value + inset];
  const [right, bottom] = [LEFT + width - inset, TOP.value + height - inset];
  const [rx, ry] = [(right - left) / 2, (bottom - top) / 2];
  if (rx <= 0 || ry <= 0) return '';
  // The corners of a polygon come with its size; until then, and of a further piece, it is drawn by its box.
  switch (piece.outline === 'polygon' && corners.length === 0 ? 'rectangle' : piece.outline) {
    case 'oval':
    case 'round':
      return `M${left} ${top + ry}a${rx} ${ry} 0 1 1 ${2 * rx} 0a${rx} ${ry} 0 1 1 ${-2 * rx} 0Z`;
    case 'arched': {
      const arch = Math.min(rx, bottom - top);
      return `M${left} ${bottom}V${top + arch}a${rx} ${arch} 0 0 1 ${2 * rx} 0V${bottom}Z`;
    }
    case 'polygon':
      return corners
        .map(({ across, up }, place) => {
          const [x, y] = [left + across * 2 * rx, bottom - up * 2 * ry];
          return `${place === 0 ? 'M' : 'L'}${x} ${y}`;
        })
        .concat('Z')
        .join('');
    case 'irregular':
      return `M${left} ${top + ry * 0.7}L${left + rx * 0.6} ${top} ${right} ${top + ry * 0.4} ${right - rx * 0.3} ${bottom} ${left + rx * 0.3} ${bottom - ry * 0.2}Z`;
    default:
      return `M${left} ${top}H${right}V${bottom}H${left}Z`;
  }
}

/** The points that a shaped piece bears on. */
const points = computed(() => {
  const { width, height } = drawn.value;
  return bearing.map(({ across, up }) => ({
    x: LEFT + across * width,
    y: TOP.value + (1 - up) * height,
  }));
});

const says = computed(() =>
  size
    ? `Front and side of the piece: ${units.size(size.width_mm, size.height_mm, size.depth_mm)}`
    : 'Front and side of a piece, not measured yet',
);

function words(which: Side): string {
  return size ? units.length(size[`${which}_mm`]) : which;
}
</script>

<template>
  <svg
    :viewBox="`0 0 ${drawn.side + drawn.depth + 80} ${TOP + drawn.height + 60}`"
    class="measure"
    role="img"
    :aria-label="says"
  >
    <g :class="{ unmeasured: !size }">
      <g v-for="place in behind" :key="place">
        <path
          :d="outline(0)"
          :transform="`translate(${(behind + 1 - place) * APART} ${-(behind + 1 - place) * APART})`"
          class="face"
        />
      </g>
      <path :d="outline(0)" class="face" :class="{ loose }" />
      <path v-if="framed" :d="outline(moulding)" class="glass" />
      <path
        v-if="piece.construction === 'mirror'"
        :d="`M${LEFT + drawn.width * 0.3} ${TOP + drawn.height * 0.55}L${LEFT + drawn.width * 0.6} ${TOP + drawn.height * 0.3}M${LEFT + drawn.width * 0.42} ${TOP + drawn.height * 0.62}L${LEFT + drawn.width * 0.64} ${TOP + drawn.height * 0.44}`"
        class="gleam"
      />
      <circle
        v-for="(point, place) in points"
        :key="`p${place}`"
        :cx="point.x"
        :cy="point.y"
        r="5"
        class="bears"
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
  fill: var(--art-light);
  stroke: var(--heather);
  stroke-width: 2px;
}
.glass {
  fill: var(--art-lighter);
  stroke: var(--heather);
}
.face.loose {
  stroke-dasharray: 8 4;
}
.gleam {
  stroke: var(--heather);
  stroke-width: 1.5px;
}
.bears {
  fill: var(--paper);
  stroke: var(--peat);
  stroke-width: 2px;
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
