<script setup lang="ts">
import { computed, toRef } from 'vue';

import type { Side } from '@/drawing/MeasureDrawing.vue';
import DraftField from '@/parts/DraftField.vue';
import { providePiece } from '@/shipment/usePiece';
import { useShipment } from '@/shipment/useShipment';

import CertificateFacts from './CertificateFacts.vue';
import PieceDetails from './PieceDetails.vue';
import SizeFields from './SizeFields.vue';
import SurfaceFields from './SurfaceFields.vue';

/** The fields of one piece. */
const props = defineProps<{ which: string }>();
const lit = defineModel<Side | undefined>('lit');
providePiece(toRef(props, 'which'));
const { draft, money } = useShipment();
const several = computed(() => Object.keys(draft.others).length > 0);
</script>

<template>
  <div>
    <div class="pair">
      <DraftField path="title" />
      <DraftField path="piece.construction" empty="Choose" />
    </div>
    <SizeFields v-model:lit="lit" />
    <SurfaceFields />
    <div v-if="several" class="pair">
      <DraftField path="value" :label="`Worth, in ${money}`" />
    </div>
    <PieceDetails />
    <template v-if="which !== 'first'">
      <DraftField path="piece.certificate" />
      <CertificateFacts />
    </template>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.pair {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0 12px;
}
@include at.phone {
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
