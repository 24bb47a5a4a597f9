<script setup lang="ts">
import { computed } from 'vue';

import type { Layer } from '@/api/types';
import BlankDrawing from '@/drawing/BlankDrawing.vue';
import CutDownDrawing from '@/drawing/CutDownDrawing.vue';
import { layerWords } from '@/words/layers';
import { OPENS } from '@/words/vocabulary';
import { useUnits } from '@/units/useUnits';

import BoxActs from './BoxActs.vue';
import WrappedMeasure from './WrappedMeasure.vue';

/** A carton or a mailer that was bought: what it is set to, and what closes it. */
const { layer, padded = false } = defineProps<{
  layer: Layer;
  /** Whether the piece goes into it wrapped thin, and not between two boards. */
  padded?: boolean;
}>();
const units = useUnits();

const saved = computed(() => (layer.make.kind === 'saved_box' ? layer.make : undefined));
const blanks = computed(() => {
  const made = saved.value;
  return made
    ? [
        ...((made.cut || made.shorter) && !made.second ? [made.blank] : []),
        ...(made.sleeve ? [made.sleeve] : []),
      ]
    : [];
});
const inside = computed(() => {
  const { make } = layer;
  if (make.kind === 'saved_box') return units.size(...(make.inside_mm as [number, number, number]));
  if (make.kind === 'bought_box')
    return units.size(make.inside_length_mm, make.inside_width_mm, make.inside_height_mm);
  if (make.kind === 'sandwich') return units.size(make.around_mm, make.along_mm);
  return make.kind === 'mailer' ? units.size(make.inside_width_mm, make.inside_length_mm) : '';
});
/** On which side, of what opens on one of its sides. */
const opens = computed(() => {
  const { make } = layer;
  if (make.kind !== 'saved_box' && make.kind !== 'bought_box') return undefined;
  // A kit of several parts is pushed together, and opens on no side of its own.
  if (make.kind === 'bought_box' && make.parts > 1) return undefined;
  return OPENS.find(({ value }) => value === make.opens)?.text.toLowerCase();
});
/** What is cut for it, and where its size stands. */
const says = computed(() => {
  const { make } = layer;
  if (make.kind === 'saved_box' || make.kind === 'bought_box') return undefined;
  if (make.kind === 'mailer' && padded)
    return 'Nothing is cut but the face boards: their size is at their layer in Guard.';
  if (make.kind === 'sandwich')
    return 'The two boards are cut, and the sleeve around them: the size of the boards is at the folio in Guard.';
  return 'Nothing is cut but the two boards: their size is at the folio in Guard.';
});
</script>

<template>
  <div class="bought">
    <h2>{{ layerWords(layer, units).name }}</h2>
    <p>{{ layer.why }}</p>
    <dl class="figure">
      <dt>{{ layer.make.kind === 'sandwich' ? 'sleeve' : 'inside' }}</dt>
      <dd>{{ inside }}</dd>
      <template v-if="opens">
        <dt>opens</dt>
        <dd>{{ opens }}</dd>
      </template>
      <dt>outside</dt>
      <dd>{{ units.size(layer.envelope.across_mm, layer.envelope.up_mm, layer.envelope.through_mm) }}</dd>
      <dt>tape</dt>
      <dd>{{ (layer.tape_mm / 1000).toFixed(1) }} m of {{ layer.tape_name }}</dd>
    </dl>
    <p v-if="says" class="soft">{{ says }}</p>
    <template v-for="blank in blanks" :key="blank.part">
      <h3>{{ blank.part === 'sleeve' ? 'Sleeve, flat, seen from inside' : 'As it is folded now' }}</h3>
      <div class="panel"><BlankDrawing :blank="blank" /></div>
    </template>
    <template v-if="saved?.second">
      <h3>Laid open: cut the whole lines, score the broken one</h3>
      <CutDownDrawing :box="saved" />
      <CutDownDrawing :box="saved" which="second" />
    </template>
    <BoxActs :place="layer.slot === 'second_box' ? 'second_box' : 'box'" />
    <WrappedMeasure v-if="layer.make.kind !== 'mailer' && layer.make.kind !== 'sandwich'" />
  </div>
</template>

<style scoped>
.bought {
  max-width: 720px;
}
h2 {
  margin: 0 0 4px;
  font-size: var(--type-lead);
}
h3 {
  margin: 12px 0 4px;
  font-size: var(--type-strong);
}
dl {
  display: grid;
  grid-template-columns: 64px 1fr;
  gap: 4px 12px;
  margin: 0 0 12px;
}
dt {
  color: var(--peat-soft);
  font-weight: 400;
}
dd {
  margin: 0;
}
</style>
