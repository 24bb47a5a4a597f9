<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, nextTick, ref, useTemplateRef } from 'vue';

import { answer, api } from '@/api/client';
import type { PastedPrices, PriceTable } from '@/api/types';
import FileText from '@/parts/FileText.vue';
import TextField from '@/parts/TextField.vue';

import OutButton from './OutButton.vue';
import { block, isBlock, laid } from './paste';
import { useWrong } from './wrong';

/** Prices: weights down, zones across; typed, or pasted from a spreadsheet. */
const { place, name, zones, example } = defineProps<{
  place: string;
  /** Whose prices they are. */
  name: string;
  /** The zones of the price list. */
  zones: readonly string[];
  /** The same table with invented prices, which stand in cells that are empty. */
  example?: PriceTable;
}>();
const table = defineModel<PriceTable>({ required: true });
const emit = defineEmits<{ newZones: [names: string[]] }>();
const wrong = useWrong();
const grid = useTemplateRef<HTMLElement>('grid');

/** An invented price, as long as the row is still the one that it stands for. */
const invented = (at: number, row: number) =>
  example?.weights[row] === table.value.weights[row] ? example?.zones[at]?.prices[row] : undefined;
const absent = computed(() =>
  zones.filter((zone) => !table.value.zones.some((column) => column.zone === zone)),
);
function addZone(zone: string): void {
  if (!zone) return;
  table.value.zones.push({ zone, prices: table.value.weights.map(() => ''), further: '' });
}
async function addWeight(): Promise<void> {
  table.value.weights.push('');
  for (const column of table.value.zones) column.prices.push('');
  await nextTick();
  grid.value
    ?.querySelector<HTMLInputElement>(`[name="${place}/weights/${table.value.weights.length - 1}"]`)
    ?.focus();
}
function dropWeight(row: number): void {
  table.value.weights.splice(row, 1);
  for (const column of table.value.zones) column.prices.splice(row, 1);
}

const pasting = ref<string>();
const trouble = ref('');
async function takeWhole(text: string): Promise<void> {
  trouble.value = '';
  try {
    const body = { text, zones: [...zones] };
    const read = await answer<PastedPrices>(api.POST('/api/v1/tariffs/cells', { body }));
    table.value = read.table;
    if (read.new_zones.length > 0) emit('newZones', read.new_zones);
    pasting.value = undefined;
  } catch (error) {
    trouble.value = error instanceof Error ? error.message : 'something went wrong in the page';
  }
}
/** A single value is typed as ever; a block of cells goes into its cells, a table with its weights in place of all. */
function pasted(event: ClipboardEvent, row: number, column?: number): void {
  const text = event.clipboardData?.getData('text/plain') ?? '';
  if (!isBlock(text)) return;
  event.preventDefault();
  if (column === undefined) void takeWhole(text);
  else table.value = laid(table.value, block(text), row, column);
}
</script>

<template>
  <div class="prices">
    <div class="wide">
      <table ref="grid" class="figure stacked">
        <caption class="visually-hidden">
          {{
            name
          }}
        </caption>
        <thead>
          <tr>
            <th scope="col" class="soft">up to</th>
            <th v-for="(column, at) in table.zones" :key="at" scope="col">
              <span class="zone-head"
                >{{ column.zone || '–' }}
                <OutButton
                  :label="`${name}: no prices for ${column.zone}`"
                  @press="table.zones.splice(at, 1)"
              /></span>
              <span v-if="wrong(`${place}/zones/${at}/zone`)" class="error">{{
                wrong(`${place}/zones/${at}/zone`)
              }}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(weight, row) in table.weights" :key="row">
            <th scope="row">
              <TextField
                v-model="table.weights[row]!"
                bare
                class="weight"
                :label="`${name}, weight ${row + 1}`"
                :name="`${place}/weights/${row}`"
                :error="wrong(`${place}/weights/${row}`)"
                @paste="pasted($event, row)"
              />
            </th>
            <td v-for="(column, at) in table.zones" :key="at" :data-is="column.zone">
              <TextField
                v-model="column.prices[row]!"
                bare
                class="price"
                :label="`${name}, up to ${weight}, ${column.zone}`"
                :placeholder="invented(at, row)"
                :name="`${place}/zones/${at}/prices/${row}`"
                :error="wrong(`${place}/zones/${at}/prices/${row}`)"
                @paste="pasted($event, row, at)"
              />
            </td>
            <td>
              <OutButton :label="`${name}: take out ${weight || 'this weight'}`" @press="dropWeight(row)" />
            </td>
          </tr>
          <tr>
            <th scope="row" class="soft">each kg more</th>
            <td v-for="(column, at) in table.zones" :key="at" :data-is="column.zone">
              <TextField
                v-model="column.further"
                bare
                class="price"
                :placeholder="example?.zones[at]?.further || 'not taken'"
                :label="`${name}, each kilogram more, ${column.zone}`"
                :name="`${place}/zones/${at}/further`"
                :error="wrong(`${place}/zones/${at}/further`)"
              />
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="wrong(place) && !wrong(`${place}/zones`) && !wrong(`${place}/weights`)" class="error">
      {{ wrong(place) }}
    </p>
    <div class="acts no-print">
      <BButton size="sm" @click="addWeight">+ Weight</BButton>
      <select
        v-if="absent.length > 0"
        class="form-select zone"
        :aria-label="`${name}: prices for another zone`"
        :name="`${place}/add`"
        @change="
          addZone(($event.target as HTMLSelectElement).value);
          ($event.target as HTMLSelectElement).value = '';
        "
      >
        <option value="">+ Zone</option>
        <option v-for="zone in absent" :key="zone" :value="zone">{{ zone }}</option>
      </select>
      <BButton
        size="sm"
        :aria-pressed="pasting !== undefined"
        @click="pasting = pasting === undefined ? '' : undefined"
        >Paste a table</BButton
      >
    </div>
    <div v-if="pasting !== undefined" class="no-print">
      <FileText
        v-model="pasting"
        label="Cells of a spreadsheet"
        :name="`${place}/cells`"
        hint="Weights in the first column, zones in the first line. Tabs, semicolons or commas; 6.20 or 6,20. It takes the place of what stands above."
      />
      <BButton variant="primary" :disabled="pasting.trim() === ''" @click="takeWhole(pasting)"
        >Take this table</BButton
      >
      <span v-if="trouble" class="error" role="status">{{ trouble }}</span>
    </div>
  </div>
</template>

<style scoped>
.wide {
  overflow-x: auto;
}
th,
td {
  padding: 2px 6px 2px 0;
  font-weight: 400;
  text-align: left;
  vertical-align: top;
}
thead th {
  max-width: 96px;
  font-weight: 600;
  vertical-align: bottom;
}
.zone-head {
  display: flex;
  gap: 2px;
  align-items: end;
  justify-content: space-between;
}
td:last-child {
  vertical-align: middle;
}
.weight {
  width: 92px;
}
.price {
  width: 96px;
}
.price :deep(input) {
  text-align: right;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin: 6px 0 12px;
}
.zone {
  width: auto;
}
.error {
  display: block;
  color: var(--rowan);
  font-weight: 600;
}
</style>
