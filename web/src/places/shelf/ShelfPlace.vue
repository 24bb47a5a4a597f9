<script setup lang="ts">
import PlusIcon from '~icons/tabler/plus';

import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, shallowRef, watch } from 'vue';

import type { ShelfEvent, ShelfItem } from '@/api/types';
import { useStudio } from '@/api/useStudio';
import { worded } from '@/words/grammar';
import FileText from '@/parts/FileText.vue';
import EmptyPlace from '@/parts/EmptyPlace.vue';
import { vSay } from '@/said/say';
import { dayAndYear, kilograms } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import { amount, sizeOf } from './amounts';
import MaterialsHead from '../MaterialsHead.vue';
import CartonForm from './CartonForm.vue';
import CaseForm from './CaseForm.vue';
import CountCell from './CountCell.vue';
import OpenCarton from './OpenCarton.vue';
import { OPENS } from '@/words/vocabulary';

import { CONDITIONS, MARKINGS } from './pileWords';
import { useShelf } from './useShelf';

const { part = '' } = defineProps<{ part?: '' | 'offcuts' | 'cartons' }>();
const KINDS: Record<string, ShelfItem['kind'][]> = {
  '': ['sheet', 'roll', 'thing', 'loose'],
  offcuts: ['offcut'],
  cartons: ['carton', 'case'],
};
const WHY: Record<string, string> = {
  counted: 'counted',
  kept: 'kept when cut:',
  cut: 'cut for',
  not_cut: 'taken back, not cut:',
  taken: 'taken for',
  given_back: 'given back from',
  opened: 'opened into raw card',
};

const shelf = useShelf();
const units = useUnits();
const { studio } = useStudio();
const panel = ref<'new' | 'case' | 'table'>();
const said = ref('');
const sought = ref('');
const opening = shallowRef<ShelfItem>();
const record = shallowRef<{ item: ShelfItem; events: ShelfEvent[] }>();
const csv = ref('');
const table = shallowRef<{ counted: number; added: number }>();
const isRead = ref(false);

watch(
  () => part,
  () => {
    panel.value = undefined;
    opening.value = undefined;
    record.value = undefined;
    said.value = '';
    shelf.forget();
  },
);
watch(csv, () => {
  table.value = undefined;
  isRead.value = false;
});

const items = computed(() => {
  const words = sought.value.toLowerCase().split(/\s+/).filter(Boolean);
  return (shelf.items.value ?? []).filter((item) => {
    const text = `${item.material_name} ${item.name} ${item.place}`.toLowerCase();
    return (KINDS[part] ?? []).includes(item.kind) && words.every((word) => text.includes(word));
  });
});
const boards = computed(() => {
  const catalogue = studio.value?.catalogue;
  const cards = (catalogue?.boards ?? []).filter(({ folds }) => part === 'offcuts' || folds);
  const foams = part === 'offcuts' ? (catalogue?.foams ?? []) : [];
  return [
    ...cards.map(({ id, name }) => ({ value: id, text: name })),
    ...foams.map(({ id, name }) => ({ value: id, text: name, thick: true })),
  ];
});
const faces = computed(() =>
  (studio.value?.catalogue.boards ?? []).map(({ id, name }) => ({ value: id, text: name })),
);

async function drop(item: ShelfItem): Promise<void> {
  if (!item.id) return;
  if (await shelf.drop(item.id)) said.value = `${item.name || item.material_name} is off the shelf.`;
}
async function look(item: ShelfItem): Promise<void> {
  if (record.value?.item.id === item.id) {
    record.value = undefined;
    return;
  }
  const events = item.id ? await shelf.record(item.id) : [];
  if (events) record.value = { item, events };
}
const happened = ({ why, about, change, at }: ShelfEvent, { measure }: ShelfItem) => {
  const day = dayAndYear(new Date(at * 1000).toISOString().slice(0, 10));
  const sign = change < 0 ? '−' : '+';
  return `${day}: ${sign}${amount(Math.abs(change), measure)}, ${WHY[why] ?? why} ${about}`.trim();
};

async function ask(dry: boolean): Promise<void> {
  const result = await shelf.table(csv.value, dry);
  if (!result) return;
  table.value = result;
  isRead.value = !dry;
}
const errors = computed(() => Object.entries(shelf.errors.value));
</script>

<template>
  <div class="page">
    <MaterialsHead :here="part || 'in-stock'">
      <label class="search no-print">
        <span class="visually-hidden">Search the stock</span>
        <input
          v-model="sought"
          type="search"
          maxlength="80"
          class="form-control"
          placeholder="Search name, place"
        />
      </label>
    </MaterialsHead>
    <p v-if="shelf.trouble.value" v-say class="trouble">{{ shelf.trouble.value }}</p>
    <p v-if="said" v-say class="notice">{{ said }}</p>
    <div class="acts no-print">
      <BButton v-if="part" @click="panel = panel === 'new' ? undefined : 'new'">
        <PlusIcon aria-hidden="true" /> {{ part === 'cartons' ? 'New carton' : 'New offcut' }}
      </BButton>
      <BButton v-if="part === 'cartons'" @click="panel = panel === 'case' ? undefined : 'case'">
        <PlusIcon aria-hidden="true" /> New travel case
      </BButton>
      <a class="btn" href="/api/v1/shelf/table" download>Save as CSV</a>
      <BButton @click="panel = panel === 'table' ? undefined : 'table'">Read in CSV</BButton>
      <RouterLink to="/tools/cutting" class="btn">Cutting plans</RouterLink>
    </div>
    <CartonForm
      v-if="panel === 'new' && part"
      :shelf="shelf"
      :kind="part === 'cartons' ? 'carton' : 'offcut'"
      :boards="boards"
      @done="panel = undefined"
    />
    <CaseForm v-if="panel === 'case'" :shelf="shelf" :boards="faces" @done="panel = undefined" />
    <section v-if="panel === 'table'" class="panel table">
      <h2>Read in a table</h2>
      <p class="soft">
        Begin with the table that is saved here. Counts are written anew; offcuts, cartons and cases are
        added. Rolls in metres, fill in kilograms.
      </p>
      <FileText v-model="csv" label="Comma-separated values" name="csv" />
      <ul v-if="errors.length > 0" v-say class="errors">
        <li v-for="[field, says] in errors" :key="field">
          <template v-if="field !== 'csv'">{{ field }}: </template>{{ says }}
        </li>
      </ul>
      <BButton v-if="!table" :disabled="!csv.trim()" @click="ask(true)">Preview the import</BButton>
      <template v-else>
        <p data-test="table-result">
          {{ table.counted }} counted, {{ table.added }} added{{
            isRead ? '. Read in.' : ', if it is read in.'
          }}
        </p>
        <BButton v-if="!isRead" variant="primary" @click="ask(false)">Read it in</BButton>
      </template>
    </section>
    <p v-if="!shelf.items.value" class="soft">Opening the stock</p>
    <p v-else-if="items.length === 0 && sought">Nothing here is called “{{ sought }}”.</p>
    <EmptyPlace
      v-else-if="part === 'offcuts' && items.length === 0"
      drawing="offcuts"
      says="No offcut yet. Usable remainders of a cut sheet are listed here."
    >
      <BButton v-if="panel !== 'new'" variant="primary" @click="panel = 'new'">Add an offcut</BButton>
    </EmptyPlace>
    <EmptyPlace
      v-else-if="part === 'cartons' && items.length === 0"
      drawing="cartons"
      says="No saved cartons. Measure the inside of a carton from a delivery, and add it here."
    >
      <BButton v-if="panel !== 'new'" variant="primary" @click="panel = 'new'">Add a carton</BButton>
    </EmptyPlace>
    <EmptyPlace
      v-else-if="items.length === 0"
      drawing="shelf"
      says="Nothing counted yet. Materials appear here to be counted."
    >
      <RouterLink to="/materials" class="btn btn-primary">Add materials</RouterLink>
    </EmptyPlace>
    <table v-else class="items figure" :class="part || 'counted'">
      <thead>
        <tr>
          <th scope="col">{{ part ? 'name' : 'what' }}</th>
          <th scope="col">{{ part === 'cartons' ? 'inside' : 'size' }}</th>
          <th scope="col">{{ part === 'cartons' ? 'condition' : part ? 'of' : 'known by' }}</th>
          <th scope="col">place</th>
          <th scope="col">there</th>
          <td></td>
        </tr>
      </thead>
      <tbody>
        <template v-for="(item, at) in items" :key="item.id ?? `said-${at}`">
          <tr :data-item="item.name || item.material_name">
            <th scope="row">
              {{ part ? item.name || item.material_name : item.material_name }}
              <span v-if="item.kind === 'carton' && item.carrier" class="soft"
                >only with {{ item.carrier }}</span
              >
            </th>
            <td>{{ sizeOf(item, units) }}</td>
            <td>
              <template v-if="item.kind === 'carton'">
                <span v-if="item.spoilt" class="spoilt">{{ worded(CONDITIONS, item.condition) }}</span>
                <span v-else>{{ worded(CONDITIONS, item.condition) }}</span>
                <span v-if="item.opens !== 'face'" class="soft"
                  >opens {{ worded(OPENS, item.opens ?? 'face').toLowerCase() }}</span
                >
                <span v-if="item.markings !== 'plain'" class="soft">{{
                  worded(MARKINGS, item.markings)
                }}</span>
                <span class="soft">{{ item.material_name }}</span>
              </template>
              <template v-else-if="item.kind === 'case'">
                Travel case, {{ kilograms(item.empty_g) }} empty
                <span class="soft"
                  >{{
                    units.size(item.outside_length_mm, item.outside_width_mm, item.outside_depth_mm)
                  }}
                  outside</span
                >
                <span class="soft">{{ item.material_name }}</span>
              </template>
              <template v-else-if="part">{{ item.material_name }}</template>
              <span v-else class="soft">{{ item.id ? 'counted here' : 'as its material says' }}</span>
            </td>
            <td>{{ item.place }}</td>
            <td><CountCell :item="item" :shelf="shelf" /></td>
            <td class="no-print">
              <BButton v-if="item.kind === 'carton'" size="sm" @click="opening = item">Open it</BButton>
              <BButton
                v-if="item.id"
                size="sm"
                variant="link"
                :aria-expanded="record?.item.id === item.id"
                @click="look(item)"
              >
                Record
              </BButton>
              <BButton
                v-if="item.id && part"
                size="sm"
                variant="link"
                :aria-label="`Take ${item.name || item.material_name} off the shelf`"
                @click="drop(item)"
                >Off the shelf</BButton
              >
            </td>
          </tr>
          <tr v-if="record && record.item.id === item.id && item.id">
            <td colspan="6">
              <ul class="record">
                <li v-for="(event, number) in record.events" :key="number">{{ happened(event, item) }}</li>
              </ul>
            </td>
          </tr>
          <tr v-if="opening && opening.id === item.id">
            <td colspan="6">
              <OpenCarton
                :item="item"
                :shelf="shelf"
                @close="opening = undefined"
                @done="
                  (says) => {
                    said = says;
                    opening = undefined;
                  }
                "
              />
            </td>
          </tr>
        </template>
      </tbody>
    </table>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.page {
  max-width: 1180px;
}
h1 {
  margin: 4px 0;
  font-size: var(--type-title);
}
h2 {
  margin: 0;
  font-size: var(--type-strong);
}
.search {
  flex: 1 1 200px;
  max-width: 300px;
  margin-left: auto;
}
.parts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  margin: 4px 0 8px;
  border-bottom: 1px solid var(--sedge);
}
.parts a {
  min-height: 44px;
  padding: 10px 2px;
  border-bottom: 3px solid transparent;
  color: var(--peat);
  text-decoration: none;
}
.parts .here {
  border-color: var(--heather);
  font-weight: 700;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  margin-bottom: 8px;
}
.table {
  padding: 8px 16px 12px;
  margin-bottom: 8px;
}
.errors {
  padding-left: 18px;
  color: var(--rowan);
}
.items {
  width: 100%;
}
.items th,
.items td {
  padding: 6px 12px 6px 0;
  border-bottom: 1px solid var(--sedge);
  font-weight: 400;
  text-align: left;
  vertical-align: middle;
}
.items thead th {
  color: var(--peat-soft);
}
.items tbody th {
  font-weight: 600;
}
.items .soft {
  display: block;
  font-size: var(--type-small);
  font-weight: 400;
}
.spoilt {
  color: var(--amber-moss);
  font-weight: 600;
}
.record {
  margin: 0;
  padding-left: 18px;
}
@include at.phone {
  .search {
    max-width: none;
    margin-left: 0;
  }
  .items,
  .items tbody,
  .items tr,
  .items th,
  .items td {
    display: block;
    padding: 2px 0;
    border: 0;
  }
  .items thead {
    display: none;
  }
  .items tr {
    padding: 8px 0;
    border-bottom: 1px solid var(--sedge);
  }
}
</style>
