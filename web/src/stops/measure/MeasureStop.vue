<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';

import MeasureDrawing from '@/drawing/MeasureDrawing.vue';
import type { Side } from '@/drawing/MeasureDrawing.vue';
import { useNextStep } from '@/frame/foot';
import { FIRST } from '@/shipment/usePiece';
import { useShipment } from '@/shipment/useShipment';
import { kilograms } from '@/units/show';

import BuyerFields from './BuyerFields.vue';
import CureNote from './CureNote.vue';
import EnclosureFields from './EnclosureFields.vue';
import OnePiece from './OnePiece.vue';
import PieceTabs from './PieceTabs.vue';

const { id, draft, bearing, corners, plan, sizes, state, stored } = useShipment();
const lit = ref<Side>();
/** The piece whose fields are shown. */
const chosen = ref(FIRST);
const which = computed({
  get: () => (draft.others[chosen.value] ? chosen.value : FIRST),
  set: (key) => {
    chosen.value = key;
  },
});
const piece = computed(() => draft.others[which.value]?.piece ?? draft.piece);
const form = useTemplateRef<HTMLFormElement>('form');

const own = computed(() => plan.value?.stack?.pieces.find(({ key }) => key === which.value));
/** What is seen of its pane, where that is taped. */
const pane = computed(() => {
  const layers = own.value?.layers ?? plan.value?.layers;
  const make = layers?.find(({ slot }) => slot === 'glass_tape')?.make;
  return make?.kind === 'glass_tape' ? make.pane_mm : undefined;
});
const weighs = computed(() => {
  const weight = own.value ? own.value.weight : plan.value?.piece_weight;
  if (!weight) return '';
  const figures = `${kilograms(weight.mass_g)} ± ${kilograms(weight.plus_minus_g)}`;
  return piece.value.weight ? `Weighed: ${figures}.` : `Estimated at ${figures} from its make.`;
});

useNextStep(() => ({
  verb: { text: 'Continue to Guard', to: { name: 'guard', params: { id } }, disabled: !plan.value },
}));

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
      <PieceTabs v-model="which" />
      <OnePiece :key="which" v-model:lit="lit" :which="which" />
      <BuyerFields />
      <EnclosureFields />
    </section>
    <section class="drawing panel">
      <MeasureDrawing
        :size="sizes[which]"
        :lit="lit"
        :piece="piece"
        :pane="pane"
        :bearing="which === FIRST ? bearing : []"
        :corners="which === FIRST ? corners : []"
      />
      <p v-if="weighs" class="soft figure">{{ weighs }}</p>
      <p v-if="plan && which === FIRST" class="soft">
        {{ plan.survival.fragility.reason }}
      </p>
      <CureNote />
      <div class="ways no-print">
        <RouterLink to="/tools/measuring-sheet" class="btn btn-link"
          >Empty measuring sheet to print</RouterLink
        >
      </div>
    </section>
  </form>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.measure {
  display: grid;
  grid-template-columns: minmax(0, 1.35fr) minmax(260px, 1fr);
  gap: 20px;
  align-items: start;
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
@include at.tablet {
  .measure {
    grid-template-columns: minmax(0, 1fr);
  }
  .drawing {
    position: static;
  }
}
</style>
