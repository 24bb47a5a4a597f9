<script setup lang="ts">
import { computed } from 'vue';

import type { Layer, SealStrip } from '@/api/types';
import { sealed, torn } from '@/drawing/sealed';
import { capital } from '@/words/grammar';
import { useUnits } from '@/units/useUnits';

/** Where the tape goes on the closed box, strip by strip, and how long each is torn. */
const { layer, seal, bulgeMm, longUp } = defineProps<{
  layer: Layer;
  seal: readonly SealStrip[];
  /** What a tape reads beyond the board, which no strip follows. */
  bulgeMm: number;
  /** Whether the box's length lies up the piece. */
  longUp: boolean;
}>();
const units = useUnits();

const PHASES: Record<number, string> = { 1: 'Every seam', 2: 'then the edges', 3: 'then the narrow sides' };
const LEAST_WIDE = 3;
const TAPE_MM = 50;

const outside = computed((): [number, number, number] => {
  const { across_mm, up_mm, through_mm } = layer.envelope;
  const deep = through_mm - bulgeMm;
  return longUp ? [up_mm, across_mm, deep] : [across_mm, up_mm, deep];
});
const views = computed(() => [false, true].map((over) => sealed(outside.value, seal, over)));
const kinds = computed(() => torn(seal));
const phases = computed(() => [...new Set(kinds.value.map(({ order }) => order))]);
const pieces = (kind: (typeof kinds.value)[number]) =>
  kind.pieces.map(({ count, length_mm }) => `${count} × ${units.length(length_mm)}`).join(', ');
const metres = computed(() =>
  layer.parts
    .filter(({ name, kind }) => name === 'tape' && kind === 'run')
    .map(
      (part) => `${(part.kind === 'run' ? part.length_mm / 1000 : 0).toFixed(1)} m of ${part.material_name}`,
    )
    .join(', and '),
);
</script>

<template>
  <section class="seal" aria-label="How it is sealed">
    <div class="heading-row">
      <h2>Sealed</h2>
      <span class="soft figure">{{ metres }}</span>
    </div>
    <div class="views panel">
      <figure v-for="(view, place) in views" :key="place">
        <svg
          :viewBox="`0 0 ${view.width} ${view.height}`"
          role="img"
          :aria-label="
            place === 0 ? 'The closed box with its tape, lying on its front' : 'The same, turned over'
          "
        >
          <polygon v-for="face in view.faces" :key="face" :points="face" class="face" />
          <line
            v-for="(strip, at) in view.strips"
            :key="at"
            :x1="strip.from[0]"
            :y1="strip.from[1]"
            :x2="strip.to[0]"
            :y2="strip.to[1]"
            :class="[`order-${strip.strip.order}`, { filament: strip.strip.filament }]"
            :stroke-width="Math.max(LEAST_WIDE, TAPE_MM * view.scale * 0.6)"
          />
        </svg>
        <figcaption class="soft">{{ place === 0 ? 'lying on its front' : 'turned over' }}</figcaption>
      </figure>
    </div>
    <ol>
      <li v-for="phase in phases" :key="phase">
        <strong>{{ PHASES[phase] }}</strong>
        <ul class="figure">
          <li v-for="kind in kinds.filter(({ order }) => order === phase)" :key="kind.on">
            {{ capital(kind.on) }}{{ kind.filament ? ', filament' : '' }}: {{ pieces(kind) }}
          </li>
        </ul>
      </li>
    </ol>
    <p class="soft">Lengths with their ends over the edges.</p>
  </section>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.seal {
  margin: 16px 0;
}
h2 {
  margin: 0 0 4px;
  font-size: var(--type-lead);
}
.views {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 12px;
}
figure {
  margin: 0;
}
svg {
  width: 100%;
  max-height: 260px;
}
figcaption {
  text-align: center;
}
.face {
  fill: var(--card);
  stroke: var(--card-line);
}
line {
  stroke: var(--peat);
  stroke-opacity: 0.55;
}
.order-2 {
  stroke: var(--heather);
  stroke-dasharray: 9 3;
}
.order-3 {
  stroke: var(--moss);
  stroke-opacity: 0.35;
}
.filament {
  stroke: var(--peat);
  stroke-dasharray: 2 2;
  stroke-opacity: 1;
}
ol {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 28px;
  margin: 8px 0 2px;
  padding-left: 20px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
p {
  margin: 0;
}
@include at.phone {
  .views {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
