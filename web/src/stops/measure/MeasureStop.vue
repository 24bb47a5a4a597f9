<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';

import { useStudio } from '@/api/useStudio';
import MeasureDrawing from '@/drawing/MeasureDrawing.vue';
import type { Side } from '@/drawing/MeasureDrawing.vue';
import { CONSTRUCTIONS, MEDIA, PAINTS } from '@/frame/words';
import ChoiceField from '@/parts/ChoiceField.vue';
import TextField from '@/parts/TextField.vue';
import { useShipment } from '@/shipment/useShipment';
import { dayAndYear, kilograms } from '@/units/show';

import SizeFields from './SizeFields.vue';

const { id, draft, errors, plan, size, line, state, stored } = useShipment();
const { studio } = useStudio();
const lit = ref<Side>();
const form = useTemplateRef<HTMLFormElement>('form');

const countries = computed(() =>
  (studio.value?.countries ?? []).map(({ code, name }) => ({ value: code, text: name })),
);
const cure = computed(() => {
  const needs = plan.value?.cure;
  if (!needs) return undefined;
  if (!needs.cured_on) return `It needs ${needs.needs} to cure: say when it was finished.`;
  const late = line.value?.next.kind === 'let_it_cure';
  return late
    ? `Stop: it needs ${needs.needs} and is not cured until ${dayAndYear(needs.cured_on)}.`
    : `Cured since ${dayAndYear(needs.cured_on)}.`;
});
const weighs = computed(() => {
  const weight = plan.value?.piece_weight;
  return weight
    ? `Estimated at ${kilograms(weight.mass_g)} ± ${kilograms(weight.plus_minus_g)} from its make.`
    : '';
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
        <TextField v-model="draft.title" label="Title of the piece" name="title" :error="errors.title" />
        <ChoiceField
          v-model="draft.piece.construction"
          label="What it is"
          name="piece.construction"
          :choices="CONSTRUCTIONS"
          empty="Choose"
          :error="errors['piece.construction']"
        />
      </div>
      <SizeFields v-model:lit="lit" />
      <div class="triple">
        <ChoiceField
          v-model="draft.piece.medium"
          label="Medium"
          name="piece.medium"
          :choices="MEDIA"
          empty="Choose"
          :error="errors['piece.medium']"
        />
        <ChoiceField v-model="draft.piece.paint" label="Paint" name="piece.paint" :choices="PAINTS" />
        <TextField
          v-model="draft.piece.finished"
          label="Finished on"
          name="piece.finished"
          type="date"
          :error="errors['piece.finished']"
          :hint="draft.piece.finished ? dayAndYear(draft.piece.finished) : undefined"
        />
      </div>
      <fieldset>
        <legend>Who gets it</legend>
        <div class="pair">
          <TextField
            v-model="draft.buyer.name"
            label="Buyer"
            name="buyer.name"
            :error="errors['buyer.name']"
          />
          <TextField
            v-model="draft.buyer.street"
            label="Street"
            name="buyer.street"
            :error="errors['buyer.street']"
          />
        </div>
        <div class="triple">
          <TextField
            v-model="draft.buyer.town"
            label="Town"
            name="buyer.town"
            :error="errors['buyer.town']"
          />
          <TextField
            v-model="draft.buyer.postcode"
            label="Postcode"
            name="buyer.postcode"
            :error="errors['buyer.postcode']"
          />
          <ChoiceField
            v-model="draft.buyer.country"
            label="Country"
            name="buyer.country"
            :choices="countries"
            empty="Choose"
            :error="errors['buyer.country']"
          />
        </div>
        <div class="triple">
          <TextField
            v-model="draft.promised"
            label="Promised for"
            name="promised"
            type="date"
            :error="errors.promised"
            :hint="draft.promised ? dayAndYear(draft.promised) : undefined"
          />
          <TextField
            v-model="draft.value"
            :label="`Worth, in ${studio?.catalogue.currency ?? 'money'}`"
            name="value"
            :error="errors.value"
          />
        </div>
      </fieldset>
    </section>
    <section class="drawing panel">
      <MeasureDrawing :size="size" :lit="lit" :framed="draft.piece.construction === 'framed_under_glass'" />
      <p v-if="weighs" class="soft">{{ weighs }}</p>
      <p v-if="cure" :class="{ stop: line?.next.kind === 'let_it_cure' }">{{ cure }}</p>
      <RouterLink v-if="plan" :to="{ name: 'guard', params: { id } }" class="btn btn-primary no-print">
        On to Guard
      </RouterLink>
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
.pair,
.triple {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0 12px;
}
.triple {
  grid-template-columns: repeat(3, minmax(0, 1fr));
}
.drawing {
  padding: 12px 16px 16px;
}
.drawing p {
  margin: 0 0 8px;
}
.stop {
  color: var(--rowan);
  font-weight: 600;
}
legend {
  font-family: var(--heading);
  font-size: 1.0625rem;
  font-weight: 600;
}
@media (max-width: 900px) {
  .measure {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (max-width: 640px) {
  .pair,
  .triple {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
