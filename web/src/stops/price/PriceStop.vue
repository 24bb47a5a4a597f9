<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';

import type { Charge, Choices, Quote } from '@/api/types';
import { useStudio } from '@/api/useStudio';
import { useNextStep } from '@/frame/foot';
import type { Said } from '@/frame/foot';
import { reason } from '@/words/carriers';
import { capital, counted } from '@/words/grammar';
import { day, money } from '@/units/show';
import { useUnits } from '@/units/useUnits';
import { useShipment } from '@/shipment/useShipment';

import ChargePanel from './ChargePanel.vue';
import CoverSays from './CoverSays.vue';
import OtherService from './OtherService.vue';
import PriceLadder from './PriceLadder.vue';
import ReachList from './ReachList.vue';
import QuotationFields from './QuotationFields.vue';
import ServiceRow from './ServiceRow.vue';
import { arrivalWords, confirmedWords, promiseWords, spreadWords } from './arrive';
import { lessWords } from './ladder';
import { usePricing } from './usePricing';

const { id, draft, kept, plan, summary, quotes, restsOn, save, choose: lay, look } = useShipment();
// One of the services is open, the best unless another was pressed.
look('lines', true);
const { ladders, arrivals, dearer, said, charge, away } = usePricing();
const units = useUnits();
const { studio } = useStudio();
const opened = ref<string>();
const sort = ref<'told' | 'price' | 'days'>('told');

const ORDERS = [
  { value: 'told', text: 'total' },
  { value: 'price', text: 'carrier price' },
  { value: 'days', text: 'days' },
] as const;
const by: Record<typeof sort.value, (quote: Quote) => number> = {
  told: () => 0,
  price: (quote) => Number(quote.total_here?.amount ?? Infinity),
  days: (quote) => (quote.total_here ? quote.days_to : Infinity),
};
const taken = computed(() => {
  const order = by[sort.value];
  const priced = quotes.value.filter(({ offer }) => offer.kind === 'priced');
  return priced.toSorted((one, other) => order(one) - order(other) || 0);
});
const arrival = (service: string) => arrivals.value.find(({ id: of }) => of === service);
/** As many services as one compares at a glance; the others are a line each until they are asked for. */
const AT_A_GLANCE = 3;
const all = ref(false);
const shown = computed(() =>
  sort.value !== 'told' || all.value
    ? taken.value
    : taken.value.filter(({ id: of }, at) => at < AT_A_GLANCE || of === draft.service || of === opened.value),
);
const others = computed(() => taken.value.filter((quote) => !shown.value.includes(quote)));
const isLate = ({ id: of }: Quote) => arrival(of)?.promise === 'no' || arrival(of)?.over === true;
/** Where those begin that arrive after the promised day, or hold no more; the server puts them behind all others. */
const late = computed(() => {
  const first = shown.value.findIndex(isLate);
  return sort.value === 'told' && shown.value.slice(first).every(isLate) ? first : -1;
});
/** Where those begin that leave some of the value uncovered, behind those that don’t. */
const short = computed(() => {
  const intime = late.value < 0 ? shown.value : shown.value.slice(0, late.value);
  const first = intime.findIndex(({ uncovered }) => uncovered != null);
  const behind = intime.slice(first).every(({ uncovered }) => uncovered != null);
  return sort.value === 'told' && first > 0 && behind ? first : -1;
});
/** That one arrives too late or holds no more, in words. */
function lateWords(quote: Quote): string {
  const how = isLate(quote) && arrival(quote.id);
  return how ? promiseWords(how, draft.promised ?? '') : '';
}
const refused = computed(() => quotes.value.filter(({ offer }) => offer.kind === 'refused'));
const looked = computed(() => opened.value ?? (draft.service || quotes.value[0]?.id));
const ladder = computed(() => ladders.value.find(({ id: of }) => of === looked.value));

const inDoubt = computed(() => spreadWords(ladder.value?.spread));
const confirmed = (service: string) =>
  confirmedWords(
    said.value?.services.find(({ id: of }) => of === service),
    said.value?.asked === true,
    studio.value?.stand_ins === true,
  );
const measured = computed(() => restsOn.value.mass === 'measured' || restsOn.value.size === 'measured');

function whyNot(quote: Quote): string {
  return quote.offer.kind === 'refused'
    ? quote.offer.reasons.map((why) => reason(why, units)).join('; ')
    : '';
}
/** How little it would take for a service that refuses it to take it. */
function nearest(service: string): string[] {
  const steps = ladders.value.find(({ id: of }) => of === service)?.steps ?? [];
  return steps.map((step) => `${lessWords(step, units)}, and it is taken for ${money(step.becomes)}`);
}
const router = useRouter();
/** What was chosen leads on. */
async function choose(service: string): Promise<void> {
  draft.service = service;
  await save();
  await router.push({ name: 'pack', params: { id } });
}
function notAfterAll(): void {
  draft.service = '';
}
useNextStep((): Said => {
  const to = (name: string) => ({ name, params: { id } });
  if (!plan.value) return { verb: { text: 'Measure it first', to: to('measure') } };
  if (!draft.buyer.country)
    return {
      verb: { text: 'Choose the country', to: to('measure') },
      hint: { level: 'note', says: 'Prices need a destination.' },
    };
  const quote = taken.value.find(({ id: of }) => of === looked.value);
  if (!quote) return { verb: { text: 'Pack it', to: to('pack') } };
  if (quote.id === draft.service) return { verb: { text: 'Continue to Pack', to: to('pack') } };
  return { verb: { text: `Send by ${quote.service}`, press: () => choose(quote.id) } };
});
function charged(rule: Charge['rule']): void {
  lay({ schools: { charge: rule } as Choices['schools'] });
}
</script>

<template>
  <div v-if="quotes.length > 0">
    <div class="heading-row">
      <h2>Services</h2>
      <span class="soft">{{
        measured ? 'by what was weighed or measured' : 'by the planned weight and size'
      }}</span>
      <RouterLink v-if="!kept" class="btn btn-sm btn-outline-secondary no-print" :to="`/shipments/${id}/ways`"
        >Every way to send it</RouterLink
      >
      <label class="order no-print"
        >Sort by
        <select v-model="sort" class="form-select" name="sort">
          <option v-for="order in ORDERS" :key="order.value" :value="order.value">{{ order.text }}</option>
        </select>
      </label>
    </div>
    <p v-if="taken.length === 0" class="stop">
      No service takes this parcel as it is. Less clearance or fewer turns at Guard make it smaller.
    </p>
    <table v-if="taken.length > 0" class="panel">
      <caption class="visually-hidden">
        Services
      </caption>
      <thead class="soft">
        <tr>
          <th scope="col">service</th>
          <th scope="col" class="extra number">weighs</th>
          <th scope="col" class="extra number">by size</th>
          <th scope="col" class="extra number">billed</th>
          <th scope="col" class="extra number">carrier</th>
          <th scope="col" class="extra number">cover in it</th>
          <th scope="col" class="extra number">expected damage</th>
          <th scope="col" class="number">total with expected damage</th>
        </tr>
      </thead>
      <template v-for="(quote, at) in shown" :key="quote.id">
        <tbody v-if="at === short" class="less">
          <tr>
            <td colspan="8">These don’t cover the full value:</td>
          </tr>
        </tbody>
        <tbody v-if="at === late" class="less" data-test="late">
          <tr>
            <td colspan="8">
              {{
                draft.promised ? `These arrive too late for ${day(draft.promised)}:` : 'These hold no more:'
              }}
            </td>
          </tr>
        </tbody>
        <ServiceRow
          :quote="quote"
          :chosen="draft.service === quote.id"
          :open="looked === quote.id"
          :arrival="arrival(quote.id)"
          :promised="draft.promised"
          @update:open="opened = $event ? quote.id : ''"
          @not-after-all="notAfterAll"
        >
          <section
            v-if="ladder && quote.id === looked"
            class="no-print"
            data-test="price-step"
            aria-label="Savings"
          >
            <h3>Savings</h3>
            <ReachList :reaches="ladder.reachable" @take="lay" />
          </section>
          <details v-if="ladder && quote.id === looked" class="asked no-print">
            <summary>Price bands</summary>
            <PriceLadder :quote="quote" :ladder="ladder" />
          </details>
          <details v-if="quote.offer.kind === 'priced'" class="asked no-print">
            <summary>Cover value</summary>
            <CoverSays :quote="quote" :offer="quote.offer" />
          </details>
          <template #under>
            <p v-if="arrival(quote.id)?.over === false" class="figure" data-test="arrival">
              {{ arrivalWords(arrival(quote.id)!) }}.
            </p>
            <p v-if="quote.id === looked && inDoubt" class="figure" data-test="spread">{{ inDoubt }}</p>
            <p v-if="confirmed(quote.id)" class="figure" data-test="confirmed">{{ confirmed(quote.id) }}</p>
          </template>
        </ServiceRow>
      </template>
    </table>
    <section v-if="others.length > 0" class="others" aria-labelledby="others" data-test="others">
      <div class="heading-row">
        <h3 id="others">{{ capital(counted(others.length, 'other service')) }}</h3>
        <BButton size="sm" class="no-print" @click="all = true">Show all in the table</BButton>
      </div>
      <ul>
        <OtherService
          v-for="quote in others"
          :key="quote.id"
          :quote="quote"
          :dearer="dearer.find(({ id: of }) => of === quote.id)"
          :late="lateWords(quote)"
          @open="opened = quote.id"
        />
      </ul>
    </section>
    <div class="below">
      <ChargePanel
        v-if="charge"
        :charge="charge"
        :cost="summary?.cost ?? undefined"
        :buyer="draft.buyer.name || 'The buyer'"
        @rule="charged"
      />
      <QuotationFields />
      <details v-if="refused.length > 0" :open="taken.length === 0" class="refused">
        <summary>
          {{ capital(counted(refused.length, 'service')) }} {{ refused.length === 1 ? 'does' : 'do' }} not
          take it
        </summary>
        <ul class="figure">
          <li v-for="quote in refused" :key="quote.id">
            <strong>{{ quote.carrier }} {{ quote.service }}</strong
            >: {{ whyNot(quote) }}
            <span v-if="draft.service === quote.id" class="stop">chosen</span>
            <span v-for="way in nearest(quote.id)" :key="way" class="soft way">{{ way }}</span>
          </li>
        </ul>
      </details>
    </div>
    <p v-if="away" v-say class="soft">Savings and charge can’t be calculated just now. Trying again.</p>
  </div>
  <div v-else-if="plan && draft.buyer.country" data-test="no-carrier">
    <h2>No carrier yet</h2>
    <p class="soft">
      Only the price is missing. Type a quoted price here to list it with the services; a price list is kept
      under
      <RouterLink :to="{ name: 'carriers', query: { parcel: id } }">Carriers</RouterLink>.
    </p>
    <QuotationFields />
  </div>
  <p v-else-if="plan" class="soft">
    Prices need a destination.
    <RouterLink :to="{ name: 'measure', params: { id } }">Choose the country</RouterLink>
  </p>
  <p v-else class="soft">
    Prices need the size of the piece.
    <RouterLink :to="{ name: 'measure', params: { id } }">Measure the piece</RouterLink>
  </p>
</template>

<style scoped lang="scss">
@use '@/styles/at';

table {
  width: 100%;
}
thead th {
  padding: 8px 6px;
  font-size: var(--type-small);
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
.others {
  margin-top: 12px;
}
.others ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
.less td {
  padding: 10px 12px 4px;
  border-top: 1px solid var(--sedge);
  color: var(--amber-moss);
}
.asked summary,
.refused summary {
  min-height: 44px;
  padding: 10px 0;
  cursor: pointer;
}
.refused ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
.refused li {
  padding: 6px 0;
  border-top: 1px solid var(--sedge);
}
.way {
  display: block;
}
h3 {
  margin: 0 0 4px;
  font-size: var(--type-strong);
}
.stop {
  color: var(--rowan);
  font-weight: 600;
}
@include at.phone {
  .extra {
    display: none;
  }
}
</style>
