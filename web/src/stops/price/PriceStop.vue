<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';

import { useWays } from '@/shipment/useWays';
import { useShipment } from '@/shipment/useShipment';

import ServiceRow from './ServiceRow.vue';

const { id, draft, plan, quotes, choose: lay } = useShipment();
const { changes } = useWays();
const priceStep = computed(() => changes.value?.price_step ?? undefined);
const opened = ref<string>();

const shownOpen = computed(() => opened.value ?? (draft.service || quotes.value[0]?.id));
const priced = computed(() => quotes.value.some((quote) => quote.offer.kind === 'priced'));

function choose(service: string): void {
  draft.service = draft.service === service ? '' : service;
}
</script>

<template>
  <div v-if="quotes.length > 0">
    <div class="heading-row">
      <h2>Every service, the best first</h2>
      <span class="soft">weights as planned; volumetric from the outside size</span>
    </div>
    <p v-if="!priced" class="stop">
      No service takes this parcel as it is. Less clearance or fewer turns at Guard make it smaller.
    </p>
    <div v-if="priceStep" class="step" data-test="price-step">
      <p>{{ priceStep.says }}</p>
      <BButton size="sm" class="no-print" @click="lay(priceStep.choices)">{{ priceStep.label }}</BButton>
    </div>
    <table class="panel">
      <caption class="visually-hidden">
        Services
      </caption>
      <thead class="soft">
        <tr>
          <th scope="col">service</th>
          <th scope="col" class="extra">days</th>
          <th scope="col" class="extra number">actual</th>
          <th scope="col" class="extra number">by size</th>
          <th scope="col" class="extra number">billed</th>
          <th scope="col" class="number">price</th>
        </tr>
      </thead>
      <ServiceRow
        v-for="quote in quotes"
        :key="quote.id"
        :quote="quote"
        :chosen="draft.service === quote.id"
        :open="shownOpen === quote.id"
        @update:open="opened = $event ? quote.id : ''"
        @choose="choose(quote.id)"
      />
    </table>
  </div>
  <p v-else-if="plan" class="soft">
    Prices follow from where it goes.
    <RouterLink :to="{ name: 'measure', params: { id } }">Choose the country</RouterLink>
  </p>
  <p v-else class="soft">
    Prices follow from the measure.
    <RouterLink :to="{ name: 'measure', params: { id } }">Measure the piece</RouterLink>
  </p>
</template>

<style scoped>
table {
  width: 100%;
}
thead th {
  padding: 8px 6px;
  font-size: 0.9375rem;
  font-weight: 400;
  text-align: left;
}
thead th:first-child {
  padding-left: 12px;
}
thead th:last-child {
  padding-right: 12px;
}
thead .number {
  text-align: right;
}
.step {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  margin-bottom: 8px;
  padding: 8px 12px;
  border-left: 4px solid var(--water);
  background: var(--paper);
}
.step p {
  margin: 0;
}
.stop {
  color: var(--rowan);
  font-weight: 600;
}
@media (max-width: 640px) {
  .extra {
    display: none;
  }
}
</style>
