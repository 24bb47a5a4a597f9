<script setup lang="ts">
import { computed } from 'vue';

import AddressFields from '@/countries/AddressFields.vue';
import DraftField from '@/parts/DraftField.vue';
import { useShipment } from '@/shipment/useShipment';

import PasteAddress from './PasteAddress.vue';

const { draft, errors, money } = useShipment();

/** Each of several pieces is worth something by itself. */
const several = computed(() => Object.keys(draft.others).length > 0);
</script>

<template>
  <fieldset>
    <legend>Who gets it</legend>
    <PasteAddress />
    <AddressFields v-model="draft.buyer" at="buyer" :errors="errors" called="Buyer" />
    <div class="triple">
      <DraftField path="order_number" />
      <DraftField path="promised" />
      <DraftField v-if="!several" path="value" :label="`Worth, in ${money}`" />
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
legend {
  font-family: var(--heading);
  font-size: var(--type-strong);
  font-weight: 600;
}
@include at.phone {
  .triple {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
