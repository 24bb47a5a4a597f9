<script setup lang="ts">
import type { PackVerb } from '@/api/types';

/** What the hand does in a step, drawn. */
const { verb } = defineProps<{ verb: PackVerb }>();

const SAID: Record<PackVerb, string> = {
  look: 'Look',
  cut: 'Cut',
  fold: 'Fold',
  lay: 'Lay it on',
  slide: 'Slide it in',
  turn: 'Wind it around',
  tape: 'Tape it',
  lift: 'Lift it',
};
/** A flat hand from the right, its thumb up. */
const HAND =
  'M40 12H14q-5 0-5 4t5 4h12M26 20H10q-5 0-5 4t5 4h16M26 28H12q-5 0-5 4t5 4h14M26 36H16q-4 0-4 4t4 4h18q14 0 22-8V14q-6-4-10-4q-4-9-9-8t0 10';
</script>

<template>
  <svg viewBox="0 0 150 96" class="hand" role="img" :aria-label="SAID[verb]">
    <template v-if="verb === 'lay'">
      <path d="M14 84h104" class="ground" />
      <path d="M18 68l70 0 18 12H36z" class="thing" />
      <path d="M56 34v24m-8-8l8 9 8-9" class="way" />
      <path :d="HAND" class="skin" transform="translate(76 16)" />
    </template>
    <template v-else-if="verb === 'slide'">
      <path d="M8 30h40M8 76h40M8 30v46" class="thing" />
      <path d="M30 40h58v26H30z" class="sheet" />
      <path d="M74 84H40m9-7l-10 7 10 7" class="way" />
      <path :d="HAND" class="skin" transform="translate(86 28)" />
    </template>
    <template v-else-if="verb === 'turn'">
      <path d="M22 44h58v26H22z" class="sheet" />
      <path d="M14 36h74v42H14z" class="thing open" />
      <path d="M30 22c14-14 42-14 54 0m-2-13l3 14-14 0" class="way" />
      <path :d="HAND" class="skin" transform="translate(86 34)" />
    </template>
    <template v-else-if="verb === 'fold'">
      <path d="M8 80h58l30-46" class="thing open" />
      <path d="M66 80h30" class="score" />
      <path d="M112 78c6-14 2-30-10-38m-2 13l1-15 13 6" class="way" />
      <path :d="HAND" class="skin" transform="translate(84 2) scale(0.8)" />
    </template>
    <template v-else-if="verb === 'tape'">
      <path d="M8 52h84v34H8z" class="sheet" />
      <path d="M18 58h66v10H18z" class="thing" />
      <path d="M24 68l6-10M36 68l6-10M48 68l6-10M60 68l6-10M72 68l6-10" class="slashes" />
      <path d="M28 42h38m-9-7l10 7-10 7" class="way" />
      <path :d="HAND" class="skin" transform="translate(82 20)" />
    </template>
    <template v-else-if="verb === 'cut'">
      <path d="M8 74h126" class="score" />
      <path d="M8 52h82v14H8z" class="thing" />
      <path d="M84 74l14-20 8 6z" class="blade" />
      <path d="M70 88H36m9-7l-10 7 10 7" class="way" />
      <path :d="HAND" class="skin" transform="translate(92 12) scale(0.95)" />
    </template>
    <template v-else-if="verb === 'lift'">
      <path d="M36 40h72v26H36z" class="thing" />
      <path d="M72 30V8m-8 9l8-10 8 10" class="way" />
      <path :d="HAND" class="skin" transform="translate(92 46)" />
      <path :d="HAND" class="skin" transform="translate(52 46) scale(-1 1)" />
      <path d="M14 94h116" class="ground" />
    </template>
    <template v-else>
      <path d="M10 48c22-30 70-30 92 0c-22 30-70 30-92 0z" class="sheet" />
      <circle cx="56" cy="48" r="15" class="thing" />
      <circle cx="56" cy="48" r="6" class="pupil" />
      <path d="M112 22l14-8M118 48h16M112 74l14 8" class="way" />
    </template>
  </svg>
</template>

<style scoped>
.hand {
  display: block;
  width: 100%;
  height: auto;
  overflow: visible;
}
path,
circle {
  stroke: var(--peat);
  stroke-width: 2.2px;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.skin {
  fill: var(--paper);
}
.thing {
  fill: var(--card);
}
.thing.open {
  fill: none;
}
.sheet {
  fill: var(--bog-cotton);
}
.blade,
.pupil {
  fill: var(--peat);
}
.score {
  fill: none;
  stroke-dasharray: 7 5;
}
.slashes,
.ground {
  fill: none;
  stroke-width: 1.6px;
}
.way {
  fill: none;
  stroke: var(--heather);
  stroke-width: 3px;
}
</style>
