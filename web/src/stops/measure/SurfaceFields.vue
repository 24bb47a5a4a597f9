<script setup lang="ts">
import { computed } from 'vue';

import DraftField from '@/parts/DraftField.vue';
import { usePiece } from '@/shipment/usePiece';

const { piece } = usePiece();

const mirror = computed(() => piece.value.construction === 'mirror');
const glass = computed(() => mirror.value || piece.value.construction === 'framed_under_glass');
const framed = computed(() => piece.value.construction.startsWith('framed_'));
/** What is in a frame where nobody says it. */
const held = computed(() => (piece.value.construction === 'framed_unglazed' ? 'Stretched canvas' : 'Paper'));
/** Strips lie on a bare border where nothing may touch the picture. */
const bare = computed(() => {
  const { construction, medium, paint } = piece.value;
  const loose = medium === 'pastel_or_charcoal' || paint === 'impasto';
  return loose && !glass.value && construction !== 'framed_under_acrylic';
});
</script>

<template>
  <fieldset>
    <legend>Surface</legend>
    <div v-if="!mirror" class="triple first">
      <DraftField path="piece.medium" empty="Choose" />
      <DraftField path="piece.paint" />
      <DraftField path="piece.finished" />
    </div>
    <div class="triple">
      <DraftField path="piece.condition" />
      <DraftField v-if="!mirror" path="piece.varnished" />
      <DraftField v-if="!mirror && piece.varnished" path="piece.varnished_on" />
      <DraftField v-if="piece.construction === 'framed_under_glass'" path="piece.pane" />
      <DraftField v-if="glass" path="piece.coated_glass" />
      <DraftField v-if="piece.construction === 'framed_under_acrylic'" path="piece.antistatic" />
      <DraftField v-if="bare" path="piece.bare_border" />
    </div>
    <div v-if="framed || mirror" class="triple">
      <DraftField v-if="framed" path="piece.frame_holds" :empty="held" />
      <DraftField path="piece.frame" />
      <DraftField v-if="glass" path="piece.moulding_width" />
    </div>
  </fieldset>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.triple {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 0 12px;
}
.first {
  grid-template-columns: minmax(0, 1.3fr) minmax(0, 1fr) minmax(0, 1.05fr);
}
.tick {
  margin-top: 24px;
}
legend {
  font-family: var(--heading);
  font-size: var(--type-strong);
  font-weight: 600;
}
@include at.phone {
  .triple,
  .first {
    grid-template-columns: minmax(0, 1fr);
  }
  .tick {
    margin-top: 0;
  }
}
</style>
