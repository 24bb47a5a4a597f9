<script setup lang="ts">
import { computed } from 'vue';

import type { Summary } from '@/api/types';

const { summary } = defineProps<{ summary?: Summary }>();

const WIDTH = 108;
const HEIGHT = 44;
/** The face is foreshortened, so that the layers can be told apart. */
const FACE = 150;

const FILLS: Record<string, string> = {
  contact_sheet: 'var(--peat)',
  card_pockets: 'var(--card-line)',
  face_boards: 'var(--card)',
  wrap: 'var(--bubble)',
  edge_fill: 'var(--fill)',
  slotted_box: 'var(--card-line)',
  cut_box: 'var(--card-line)',
  tube: 'var(--card-line)',
  mailer: 'var(--card-line)',
  bought_box: 'var(--card-line)',
  saved_box: 'var(--card-line)',
  roll: 'var(--heather)',
  folio: 'var(--card)',
  bundle: 'var(--card)',
  slip_on_corners: 'var(--card-line)',
  window_spacer: 'var(--foam)',
  face_pads: 'var(--foam)',
  edge_pads: 'var(--foam)',
  corner_blocks: 'var(--foam)',
  sealed_bag: 'var(--film)',
  stretch_film: 'var(--film)',
  lining: 'var(--foam)',
  padding_sheets: 'var(--foam)',
  skirt: 'var(--bubble)',
  paper_rolls: 'var(--fill)',
  card_springs: 'var(--fill)',
  outer_paper: 'var(--peat)',
  enclosures: 'var(--paper)',
};

/** A roll in its tube, cut across: the tube, what lies around the roll, and the roll. */
const rings = computed(() => {
  const roll = summary?.section.findIndex(({ kind }) => kind === 'roll') ?? -1;
  if (!summary || roll < 0) return [];
  const scale = HEIGHT / summary.outside.across_mm;
  let radius = HEIGHT / 2;
  return summary.section
    .slice(roll)
    .reverse()
    .map((layer) => {
      const ring = { r: radius, fill: FILLS[layer.kind] ?? 'none' };
      radius -= layer.adds.left_mm * scale;
      return ring;
    })
    .filter(({ fill }) => fill !== 'none');
});

const rects = computed(() => {
  if (!summary || rings.value.length > 0) return [];
  const { adds, size, section } = summary;
  const long = adds.left_mm + FACE + adds.right_mm;
  const deep = adds.front_mm + size.depth_mm + adds.back_mm;
  const scale = Math.min(WIDTH / long, HEIGHT / deep);
  let box = {
    x: (WIDTH - long * scale) / 2,
    y: (HEIGHT - deep * scale) / 2,
    width: long * scale,
    height: deep * scale,
  };
  const drawn = [];
  for (const layer of section.toReversed()) {
    drawn.push({ ...box, fill: FILLS[layer.kind] });
    const { left_mm, right_mm, front_mm, back_mm } = layer.adds;
    box = {
      x: box.x + left_mm * scale,
      y: box.y + front_mm * scale,
      width: box.width - (left_mm + right_mm) * scale,
      height: box.height - (front_mm + back_mm) * scale,
    };
  }
  drawn.push({ ...box, fill: 'var(--heather)' });
  return drawn;
});
</script>

<template>
  <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" :width="WIDTH" :height="HEIGHT" aria-hidden="true">
    <rect v-for="(rect, place) in rects" :key="place" v-bind="rect" />
    <circle v-for="ring in rings" :key="ring.fill" :cx="WIDTH / 2" :cy="HEIGHT / 2" v-bind="ring" />
    <rect v-if="!summary" x="4" y="6" width="100" height="32" class="none" />
  </svg>
</template>

<style scoped>
.none {
  fill: none;
  stroke: var(--peat-soft);
  stroke-dasharray: 5 4;
}
</style>
