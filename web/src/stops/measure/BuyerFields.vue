<script setup lang="ts">
import { computed } from 'vue';

import { useStudio } from '@/api/useStudio';
import ChoiceField from '@/parts/ChoiceField.vue';
import TextField from '@/parts/TextField.vue';
import { useShipment } from '@/shipment/useShipment';
import { dayAndYear } from '@/units/show';

const { draft, errors } = useShipment();
const { studio } = useStudio();

const countries = computed(() =>
  (studio.value?.countries ?? []).map(({ code, name }) => ({ value: code, text: name })),
);
</script>

<template>
  <fieldset>
    <legend>Who gets it</legend>
    <div class="pair">
      <TextField v-model="draft.buyer.name" label="Buyer" name="buyer.name" :error="errors['buyer.name']" />
      <TextField
        v-model="draft.buyer.street"
        label="Street"
        name="buyer.street"
        :error="errors['buyer.street']"
      />
    </div>
    <div class="triple">
      <TextField v-model="draft.buyer.town" label="Town" name="buyer.town" :error="errors['buyer.town']" />
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
</template>

<style scoped>
.pair,
.triple {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0 12px;
}
.triple {
  grid-template-columns: repeat(3, minmax(0, 1fr));
}
legend {
  font-family: var(--heading);
  font-size: 1.0625rem;
  font-weight: 600;
}
@media (max-width: 640px) {
  .pair,
  .triple {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
