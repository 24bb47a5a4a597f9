<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';

import MeasureDrawing from '@/drawing/MeasureDrawing.vue';
import type { Side } from '@/drawing/MeasureDrawing.vue';
import DraftField from '@/parts/DraftField.vue';
import { useShipment } from '@/shipment/useShipment';
import { kilograms } from '@/units/show';

import BuyerFields from './BuyerFields.vue';
import CureNote from './CureNote.vue';
import EnclosureFields from './EnclosureFields.vue';
import PieceDetails from './PieceDetails.vue';
import SizeFields from './SizeFields.vue';
import SurfaceFields from './SurfaceFields.vue';

const { id, draft, bearing, plan, size, state, stored } = useShipment();
const lit = ref<Side>();
const form = useTemplateRef<HTMLFormElement>('form');

const weighs = computed(() => {
  const weight = plan.value?.piece_weight;
  if (!weight) return '';
  const figures = `${kilograms(weight.mass_g)} ± ${kilograms(weight.plus_minus_g)}`;
  return draft.piece.weight ? `Weighed: ${figures}.` : `Estimated at ${figures} from its make.`;
});

// A shipment that was just begun is typed into at once.
watch(
  state,
  async (now, before) => {
    await nextTick();
    if (now === 'saved' && before !== 'saving' && !stored.value && !draft.title) {
      form.value?.querySelector('input')?.focus();
    }
  },
  { immediate: true },
);
</script>

<template>
  <form ref="form" class="measure" @submit.prevent>
    <section class="fields">
      <div class="pair">
        <DraftField path="title" />
        <DraftField path="piece.construction" empty="Choose" />
      </div>
      <SizeFields v-model:lit="lit" />
      <SurfaceFields />
      <PieceDetails />
      <BuyerFields />
      <EnclosureFields />
    </section>
    <section class="drawing panel">
      <MeasureDrawing :size="size" :lit="lit" :piece="draft.piece" :bearing="bearing" />
      <p v-if="weighs" class="soft figure">{{ weighs }}</p>
      <p v-if="plan" class="soft">
        {{ plan.survival.fragility.reason }}
      </p>
      <CureNote />
      <div class="ways no-print">
        <RouterLink v-if="plan" :to="{ name: 'guard', params: { id } }" class="btn btn-primary">
          On to Guard
        </RouterLink>
        <RouterLink to="/measuring-sheet" class="btn btn-link">Empty measuring sheet to print</RouterLink>
      </div>
    </section>
  </form>
</template>

<style scoped>
.measure {
  display: grid;
  grid-template-columns: minmax(0, 1.35fr) minmax(260px, 1fr);
  gap: 20px;
  align-items: start;
}
.pair {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0 12px;
}
.drawing {
  position: sticky;
  top: 12px;
  padding: 12px 16px 16px;
}
.drawing p {
  margin: 0 0 8px;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
}
@media (max-width: 900px) {
  .measure {
    grid-template-columns: minmax(0, 1fr);
  }
  .drawing {
    position: static;
  }
}
@media (max-width: 640px) {
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
