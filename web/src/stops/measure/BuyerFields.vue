<script setup lang="ts">
import { computed } from 'vue';

import { useStudio } from '@/api/useStudio';
import DraftField from '@/parts/DraftField.vue';
import { useShipment } from '@/shipment/useShipment';

import PasteAddress from './PasteAddress.vue';

const { studio } = useStudio();
const { draft } = useShipment();

/** Each of several pieces is worth something by itself. */
const several = computed(() => Object.keys(draft.others).length > 0);

const countries = computed(() =>
  (studio.value?.countries ?? []).map(({ code, name }) => ({ value: code, text: name })),
);
</script>

<template>
  <fieldset>
    <legend>Who gets it</legend>
    <PasteAddress />
    <div class="pair">
      <DraftField path="buyer.name" />
      <DraftField path="buyer.street" />
    </div>
    <div class="triple">
      <DraftField path="buyer.town" />
      <DraftField path="buyer.postcode" />
      <DraftField path="buyer.country" :codes="countries" empty="Choose" />
    </div>
    <div class="triple">
      <DraftField path="promised" />
      <DraftField
        v-if="!several"
        path="value"
        :label="`Worth, in ${studio?.catalogue.currency ?? 'money'}`"
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
