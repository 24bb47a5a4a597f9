<script setup lang="ts">
import { computed } from 'vue';

import type { Layer } from '@/api/types';
import { counted } from '@/frame/words';
import { useUnits } from '@/units/useUnits';

import WrappedMeasure from './WrappedMeasure.vue';

/** A carton or a mailer that was bought: what it is set to, and what closes it. */
const { layer } = defineProps<{ layer: Layer }>();
const units = useUnits();

const inside = computed(() => {
  const { make } = layer;
  if (make.kind === 'bought_box')
    return units.size(make.inside_length_mm, make.inside_width_mm, make.inside_height_mm);
  return make.kind === 'mailer' ? units.size(make.inside_width_mm, make.inside_length_mm) : '';
});
const says = computed(() => {
  const { make } = layer;
  if (make.kind === 'bought_box')
    return make.parts > 1
      ? `Slide its ${counted(make.parts, 'part')} over each other until it measures that inside.`
      : 'Set it up as it comes.';
  if (make.kind === 'mailer' && make.count > 1)
    return `Push one over each end until they lap ${units.length(make.overlap_mm)}, and tape them all round.`;
  return 'Nothing is cut but the two boards: their size is at the folio in Guard.';
});
</script>

<template>
  <div class="bought">
    <h2>{{ layer.material_name }}</h2>
    <p>{{ layer.why }}</p>
    <dl class="figure">
      <dt>inside</dt>
      <dd>{{ inside }}</dd>
      <dt>outside</dt>
      <dd>{{ units.size(layer.envelope.across_mm, layer.envelope.up_mm, layer.envelope.through_mm) }}</dd>
      <dt>tape</dt>
      <dd>{{ (layer.tape_mm / 1000).toFixed(1) }} m of {{ layer.tape_name }}</dd>
    </dl>
    <p class="soft">{{ says }}</p>
    <WrappedMeasure v-if="layer.make.kind === 'bought_box'" />
    <slot />
  </div>
</template>

<style scoped>
.bought {
  max-width: 560px;
}
h2 {
  margin: 0 0 4px;
  font-size: 1.1875rem;
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
