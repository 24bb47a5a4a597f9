<script setup lang="ts">
import { computed, ref, watchEffect } from 'vue';

import AddressFields from '@/countries/AddressFields.vue';
import DraftField from '@/parts/DraftField.vue';
import { useShipment } from '@/shipment/useShipment';

import PasteAddress from './PasteAddress.vue';

const { draft, errors, money } = useShipment();

/** Each of several pieces is worth something by itself. */
const several = computed(() => Object.keys(draft.others).length > 0);
/** Once there is something it stays open, also while it is typed anew. */
const hasMore = ref(false);
watchEffect(() => {
  if (draft.order.paid || draft.order.note) hasMore.value = true;
});
</script>

<template>
  <fieldset>
    <legend>Who gets it</legend>
    <PasteAddress />
    <AddressFields v-model="draft.buyer" at="buyer" :errors="errors" called="Buyer" />
    <div class="triple">
      <DraftField path="order.number" />
      <DraftField path="promised" />
      <DraftField v-if="!several" path="value" :label="`Worth, in ${money}`" />
    </div>
    <DraftField path="gift" />
    <details v-if="draft.order.number" class="order" :open="hasMore">
      <summary>More of the order</summary>
      <div class="triple">
        <DraftField path="order.shop" />
        <DraftField path="order.sku" />
        <DraftField path="order.paid" :label="`Paid for carriage, in ${money}`" />
      </div>
      <DraftField path="order.note" />
    </details>
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
