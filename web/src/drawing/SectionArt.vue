<script setup lang="ts">
import { computed } from 'vue';

import type { Plan } from '@/api/types';

import MaterialBand from './MaterialBand.vue';
import type { Band } from './band';
import type { Section } from './section';

/** A section as it is drawn: layers by their patterns, the piece or pieces in them, the art at their front. */
const { plan, section, width, barred } = defineProps<{
  plan: Plan;
  section: Section;
  /** How far to the right it goes. */
  width: number;
  /** Whether the piece is cloth on bars. */
  barred: boolean;
  /** Without words, where it is drawn mirrored. */
  mute?: boolean;
  /** Layers that would go, by their slots. */
  gone?: ReadonlySet<string>;
  /** The layer that is lifted, by its place in the plan. */
  lifted?: number | undefined;
}>();
const emit = defineEmits<{ press: [place: number] }>();

/** From outside inward, each with its place in the plan. */
const layers = computed(() =>
  section.layers.map((drawn, at) => ({ ...drawn, place: plan.layers.length - 1 - at })),
);
const bar = computed(() => ({
  width: Math.min(section.piece.height * 1.3, 70),
  height: Math.max(0, section.piece.height - 4),
}));
/** The pad in the hollow behind a canvas, thinner than its bars. */
const hollow = computed<Band | undefined>(() => {
  if (plan.stack) return undefined;
  const make = plan.layers.find((layer) => layer.make.kind === 'back_fill')?.make;
  if (make?.kind !== 'back_fill') return undefined;
  const { piece, scale } = section;
  const x = piece.x + bar.value.width + 6;
  const height = make.thickness_mm * scale;
  const y = piece.y + piece.height - height;
  return { x, y, width: width - x, height, pattern: 'foam', outward: 'down', turns: 1 };
});
</script>

<template>
  <g>
    <g
      v-for="layer in layers"
      :key="layer.place"
      :class="{ gone: gone?.has(layer.layer.slot), lifted: lifted === layer.place }"
      @click="emit('press', layer.place)"
    >
      <rect v-bind="layer.box" class="air" />
      <MaterialBand v-for="(band, part) in layer.bands" :key="part" :band="band" />
    </g>
    <template v-if="section.members.length > 0">
      <rect v-bind="section.piece" class="air" />
      <MaterialBand v-for="(band, at) in section.boards" :key="`board-${at}`" :band="band" />
      <g
        v-for="(member, at) in section.members"
        :key="`member-${at}`"
        :data-test="mute ? undefined : 'member'"
      >
        <rect v-bind="member.wrapped" class="wrapped" />
        <rect v-bind="member.piece" class="piece" />
        <path
          :d="`M${member.piece.x} ${member.piece.y + (member.faces_front ? 0 : member.piece.height)}H${width}`"
          class="art"
        />
        <text
          v-if="!mute && member.piece.height > 16"
          :x="member.piece.x + 10"
          :y="member.piece.y + member.piece.height / 2 + 5"
        >
          {{ member.title }}
        </text>
      </g>
    </template>
    <template v-else>
      <rect v-bind="section.piece" class="piece" />
      <rect
        v-if="barred"
        :x="section.piece.x + 3"
        :y="section.piece.y + 4"
        :width="bar.width"
        :height="bar.height"
        class="wood"
      />
      <MaterialBand v-if="hollow" :band="hollow" />
      <path
        :d="`M${section.piece.x} ${section.piece.y + section.piece.height}V${section.piece.y}H${width}`"
        class="art"
      />
    </template>
    <path :d="`M${section.outside.x} ${section.outside.y + section.outside.height}H${width}`" class="bulge" />
  </g>
</template>

<style scoped>
.air {
  fill: var(--paper);
}
.piece {
  fill: var(--sheet);
}
.wrapped {
  fill: var(--pane);
  stroke: var(--card-line);
  stroke-width: 0.8px;
}
.wood {
  fill: var(--wood);
  stroke: var(--card-line);
}
.art {
  fill: none;
  stroke: var(--heather);
  stroke-width: 6px;
}
.bulge {
  stroke: var(--peat-soft);
  stroke-dasharray: 2 4;
}
.lifted > :deep(.band) {
  translate: 0 -3px;
}
.gone > :deep(.band) {
  opacity: 0.25;
}
text {
  fill: var(--peat);
  font-size: 15px;
}
</style>
