<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect';
import { computed, ref, useTemplateRef } from 'vue';
import { useRouter } from 'vue-router';

import { answer, api } from '@/api/client';
import { useStudio } from '@/api/useStudio';
import { oneIn, worded } from '@/words/grammar';
import { OUTCOMES } from '@/words/vocabulary';
import { useKeys } from '@/keys/useKeys';
import { vSay } from '@/said/say';
import { beginShipment } from '@/shipment/begun';
import { dayAndYear, grouped, kilograms } from '@/units/show';

import ReckoningPanel from './ReckoningPanel.vue';
import { PAGE, useLog } from './useLog';

/** Every parcel that left: looked for, and reckoned up. */
const { sought, sort, skip, page, reckoning, table } = useLog();
const { studio } = useStudio();
const router = useRouter();
const field = useTemplateRef<HTMLInputElement>('search');
useKeys({ '/': () => field.value?.focus() });

const ANY = { value: '', text: 'any' };
const SORTS = [
  { value: 'newest', text: 'newest first' },
  { value: 'oldest', text: 'oldest first' },
  { value: 'title', text: 'by title' },
  { value: 'buyer', text: 'by buyer' },
  { value: 'carriage', text: 'dearest carriage' },
  { value: 'weight_off', text: 'weight furthest off' },
  { value: 'odds', text: 'likeliest damaged' },
];
const named = (names: readonly string[] | undefined) => [
  ANY,
  ...(names ?? []).map((name) => ({ value: name, text: name })),
];
const outcomes = [ANY, { value: 'none', text: 'On its way' }, ...OUTCOMES];
const classes = computed(() => [
  ANY,
  ...(studio.value?.classes ?? []).map(({ class: key, name }) => ({ value: key, text: name })),
]);
const routes = computed(() => [
  ANY,
  ...(studio.value?.routes ?? []).map(({ route: key, name }) => ({ value: key, text: name })),
]);
const classNames = computed(() => new Map((studio.value?.classes ?? []).map((one) => [one.class, one.name])));

const rows = computed(() => page.data.value?.rows ?? []);
/** The money of what left before the studio counted in another. */
const otherMoney = (code?: string | null) => (code && code !== studio.value?.catalogue.currency ? code : '');
const total = computed(() => page.data.value?.total);
const at = computed(() => Number(skip.value));
const filtered = computed(() => Object.values(sought).some((value) => value.value !== ''));
const go = (to: number) => {
  skip.value = String(Math.max(0, to));
};

const trouble = ref('');
/** Begins a shipment as an old one was sent. */
/** Eight filters fill the first screen of a phone: there they are unfolded when wanted, or when one of them holds. */
const unfolded = window.matchMedia('(min-width: 700px)').matches || filtered.value;
async function again(id: string): Promise<void> {
  trouble.value = '';
  try {
    const given = await answer(api.GET('/api/v1/shipments/{id}/again', { params: { path: { id } } }));
    await router.push({ name: 'short', params: { id: beginShipment(given.inputs) } });
  } catch (error) {
    trouble.value = `It was not begun: ${error instanceof Error ? error.message : 'something went wrong in the page'}.`;
  }
}
/** One in so many, to two digits from a hundred on, as odds are said elsewhere. */
function about(probability: number): number {
  const many = Math.max(1, Math.round(1 / Math.max(probability, 1e-9)));
  return many < 100 ? many : Number(many.toPrecision(2));
}
const weighed = (row: (typeof rows.value)[number]) =>
  typeof row.weighed_g === 'number'
    ? `${kilograms(row.weighed_g)}, ${row.weighed_g >= row.planned_g ? '+' : '−'}${Math.abs(((row.weighed_g - row.planned_g) / row.planned_g) * 100).toFixed(0)} %`
    : `≈ ${kilograms(row.planned_g)}`;
</script>

<template>
  <div class="page">
    <div class="heading-row">
      <h1>Log</h1>
      <label class="search no-print">
        <span class="visually-hidden">Search title, buyer or town</span>
        <input
          ref="search"
          v-model="sought.search.value"
          type="search"
          maxlength="120"
          class="form-control"
          placeholder="Search title, buyer, town"
        />
      </label>
      <a :href="table('csv')" class="btn no-print">As CSV</a>
      <a :href="table('json')" class="btn no-print">As JSON</a>
    </div>
    <details class="no-print" :open="unfolded">
      <summary>Filter and sort</summary>
      <div class="ways">
        <label
          >What came of it
          <BFormSelect v-model="sought.outcome.value" name="outcome" :options="outcomes" size="sm"
        /></label>
        <label
          >Kind <BFormSelect v-model="sought.class.value" name="class" :options="classes" size="sm"
        /></label>
        <label
          >Way <BFormSelect v-model="sought.route.value" name="route" :options="routes" size="sm"
        /></label>
        <label
          >Carrier
          <BFormSelect
            v-model="sought.carrier.value"
            name="carrier"
            :options="named(page.data.value?.carriers)"
            size="sm"
        /></label>
        <label
          >Preset
          <BFormSelect
            v-model="sought.preset.value"
            name="preset"
            :options="named(page.data.value?.presets)"
            size="sm"
        /></label>
        <label>From <input v-model="sought.from.value" type="date" name="from" class="form-control" /></label>
        <label>To <input v-model="sought.to.value" type="date" name="to" class="form-control" /></label>
        <label>Sorted <BFormSelect v-model="sort" name="sort" :options="SORTS" size="sm" /></label>
      </div>
    </details>
    <p v-if="trouble" v-say class="notice">{{ trouble }}</p>
    <p v-if="page.away.value" v-say class="soft">The studio’s data can’t be reached. Trying again.</p>
    <p v-else-if="total === undefined" class="soft">Opening the log</p>
    <p v-else-if="total === 0" data-test="nothing">
      {{
        filtered ? 'Nothing in the log is like that.' : 'Nothing has left yet: hand a parcel over at Send.'
      }}
    </p>
    <template v-else>
      <ReckoningPanel v-if="reckoning.data.value" :told="reckoning.data.value" :filtered="filtered" />
      <h2 class="all">{{ grouped(total) }} {{ total === 1 ? 'parcel' : 'parcels' }}</h2>
      <div class="table">
        <table class="figure" data-test="log">
          <thead>
            <tr>
              <th scope="col">left</th>
              <th scope="col">piece</th>
              <th scope="col">with</th>
              <th scope="col" class="number">odds</th>
              <th scope="col" class="number">weight</th>
              <th scope="col" class="number">carriage</th>
              <th scope="col" class="number">min</th>
              <th scope="col">came</th>
              <th scope="col"><span class="visually-hidden">again</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in rows" :key="row.id">
              <td>{{ dayAndYear(row.left_on) }}</td>
              <td>
                <RouterLink :to="{ name: 'after', params: { id: row.id } }">{{
                  row.title || 'Untitled'
                }}</RouterLink>
                <span class="soft">{{ row.buyer }}, {{ classNames.get(row.class) }}</span>
              </td>
              <td>
                {{ row.carrier ?? 'no carrier' }} <span class="soft">{{ row.service }}</span>
              </td>
              <td class="number">{{ oneIn(about(row.probability)) }}</td>
              <td class="number">{{ weighed(row) }}</td>
              <td class="number">
                {{ row.billed ?? row.carriage ?? '–' }} {{ otherMoney(row.currency) }}
                <span v-if="row.billed && row.carriage" class="soft">for {{ row.carriage }}</span>
              </td>
              <td class="number">
                {{ typeof row.took === 'number' ? row.took.toFixed(0) : `≈ ${row.minutes.toFixed(0)}` }}
              </td>
              <td :class="row.outcome">{{ row.outcome ? worded(OUTCOMES, row.outcome) : 'on its way' }}</td>
              <td><BButton size="sm" class="no-print" @click="again(row.id)">As last time</BButton></td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="total > PAGE" class="pages no-print">
        <BButton :disabled="at === 0" @click="go(at - PAGE)">Before</BButton>
        <span class="soft figure"
          >{{ at + 1 }} to {{ Math.min(at + PAGE, total) }} of {{ grouped(total) }}</span
        >
        <BButton :disabled="at + PAGE >= total" @click="go(at + PAGE)">After</BButton>
      </p>
    </template>
  </div>
</template>

<style scoped>
.page {
  max-width: 1240px;
}
h1 {
  margin: 4px 0;
  font-size: 1.75rem;
}
.heading-row {
  flex-wrap: wrap;
  align-items: center;
}
.search {
  flex: 1 1 220px;
  max-width: 340px;
  margin-left: auto;
}
summary {
  min-height: 44px;
  color: var(--peat-soft);
  line-height: 44px;
}
@media (min-width: 700px) {
  /* Once it was closed on a wide screen, it can be opened again. */
  details[open] > summary {
    display: none;
  }
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  margin-bottom: 12px;
}
.ways label {
  display: flex;
  gap: 8px;
  align-items: center;
  color: var(--peat-soft);
}
.ways select,
.ways input {
  width: auto;
}
.all {
  margin: 16px 0 4px;
  font-size: 1.25rem;
}
.table {
  /* What is only read out stays within it. */
  position: relative;
  overflow-x: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  padding: 6px 10px 6px 0;
  border-bottom: 1px solid var(--sedge);
  text-align: left;
  vertical-align: baseline;
}
thead th {
  color: var(--peat-soft);
  font-weight: 400;
}
td .soft {
  display: block;
  font-size: 0.9375rem;
}
.number {
  text-align: right;
  white-space: nowrap;
}
td a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  font-weight: 600;
}
.damaged,
.lost {
  color: var(--rowan);
  font-weight: 600;
}
.pages {
  display: flex;
  gap: 12px;
  align-items: center;
  margin: 12px 0;
}
</style>
