<script setup lang="ts">
import { computed, ref } from 'vue';

import type { Charge, Choices, Quote } from '@/api/types';
import { useShipment } from '@/shipment/useShipment';

import ChargePanel from './ChargePanel.vue';
import CoverSays from './CoverSays.vue';
import PriceLadder from './PriceLadder.vue';
import ReachList from './ReachList.vue';
import ServiceRow from './ServiceRow.vue';
import { usePricing } from './usePricing';

const { id, draft, plan, quotes, choose: lay } = useShipment();
const { ladders, charge, away } = usePricing();
const opened = ref<string>();
const sort = ref<'told' | 'price' | 'days'>('told');

const ORDERS = [
  { value: 'told', text: 'all told' },
  { value: 'price', text: 'carriage alone' },
  { value: 'days', text: 'days' },
] as const;
const by: Record<typeof sort.value, (quote: Quote) => number> = {
  told: () => 0,
  price: (quote) => Number(quote.total_here?.amount ?? Infinity),
  days: (quote) => (quote.total_here ? quote.days_to : Infinity),
};
const sorted = computed(() => {
  const order = by[sort.value];
  return quotes.value.toSorted((one, other) => order(one) - order(other) || 0);
});
const looked = computed(() => opened.value ?? (draft.service || quotes.value[0]?.id));
const looking = computed(() => quotes.value.find((quote) => quote.id === looked.value));
const ladder = computed(() => ladders.value.find(({ id: of }) => of === looked.value));
const priced = computed(() => quotes.value.some((quote) => quote.offer.kind === 'priced'));

function choose(service: string): void {
  draft.service = draft.service === service ? '' : service;
}
function charged(rule: Charge['rule']): void {
  lay({ schools: { charge: rule } as Choices['schools'] });
}
</script>

<template>
  <div v-if="quotes.length > 0">
    <div class="heading-row">
      <h2>What sending costs the studio</h2>
      <span class="soft">as planned, with cover by the house’s rule and the loss one must expect</span>
      <label class="order no-print"
        >Sort by
        <select v-model="sort" class="form-select" name="sort">
          <option v-for="order in ORDERS" :key="order.value" :value="order.value">{{ order.text }}</option>
        </select>
      </label>
    </div>
    <p v-if="!priced" class="stop">
      No service takes this parcel as it is. Less clearance or fewer turns at Guard make it smaller.
    </p>
    <table class="panel">
      <caption class="visually-hidden">
        Services
      </caption>
      <thead class="soft">
        <tr>
          <th scope="col">service</th>
          <th scope="col" class="extra number">weighs</th>
          <th scope="col" class="extra number">by size</th>
          <th scope="col" class="extra number">billed</th>
          <th scope="col" class="extra number">carriage</th>
          <th scope="col" class="extra number">cover</th>
          <th scope="col" class="extra number">risk</th>
          <th scope="col" class="number">all told</th>
        </tr>
      </thead>
      <ServiceRow
        v-for="quote in sorted"
        :key="quote.id"
        :quote="quote"
        :chosen="draft.service === quote.id"
        :open="looked === quote.id"
        @update:open="opened = $event ? quote.id : ''"
        @choose="choose(quote.id)"
      />
    </table>
    <div class="below">
      <section v-if="looking && ladder" :aria-label="`${looking.service}, between its prices`">
        <h2>{{ looking.carrier }} {{ looking.service }}, between its prices</h2>
        <PriceLadder :quote="looking" :ladder="ladder" />
      </section>
      <section v-if="looking && ladder" data-test="price-step" aria-label="Steps within reach">
        <h2>Steps within reach</h2>
        <ReachList :reaches="ladder.reachable" @take="lay" />
        <CoverSays v-if="looking.offer.kind === 'priced'" :quote="looking" :offer="looking.offer" />
      </section>
      <ChargePanel v-if="charge" :charge="charge" :buyer="draft.buyer.name || 'The buyer'" @rule="charged" />
    </div>
    <p v-if="away" v-say class="soft">The steps and the charge can’t be worked out just now. Trying again.</p>
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
.order {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-left: auto;
  white-space: nowrap;
}
.below {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(320px, 100%), 1fr));
  gap: 8px 24px;
  margin-top: 16px;
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
