<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput';
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect';
import { computed, ref, watch } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import { vSay } from '@/said/say';
import { counted } from '@/words/grammar';

import OrderFile from './OrderFile.vue';
import OrderRows from './OrderRows.vue';
import { ALL_COLUMNS, COLUMNS, useOrders } from './useOrders';

/** Orders from a shop: a table that is read by its head, a shipment of each order that is not known yet. */
const MOST_SHOWN = 200;

const csv = ref('');
const {
  columns,
  lengthsIn,
  dates,
  shop,
  kept,
  guessed,
  like,
  table,
  named,
  ready,
  seen,
  shown,
  fresh,
  made,
  refused,
  sent,
  busy,
  trouble,
  send,
  cellOf,
  canMend,
  mend,
} = useOrders(csv);
const { data: kinds } = useRead({
  queryKey: ['kinds'],
  queryFn: ({ signal }) => answer(api.GET('/api/v1/kinds', { signal })),
});
const known = computed(() => seen.value.filter((one) => one.known));
const found = computed(() => ALL_COLUMNS.filter((column) => named.value[column]));
const unread = computed(() => {
  const taken = Object.values(named.value);
  return table.value.head.filter((name) => !taken.includes(name));
});
/** Columns that nobody could guess are named here; it stays open while they are, and until a table with another head. */
const isNaming = ref(false);
watch([guessed, ready], () => {
  if (guessed.value && !ready.value) isNaming.value = true;
});
watch(
  () => table.value.head.join('\n'),
  () => {
    isNaming.value = false;
  },
);
/** Some size could be read in two ways: one press answers for all of them. */
const asksUnit = computed(
  () =>
    lengthsIn.value === '' &&
    refused.value.some((one) => one.refused.some(({ field }) => field === 'size' || field === 'width')),
);
const UNITS = [
  { value: 'mm', text: 'millimetres' },
  { value: 'cm', text: 'centimetres' },
  { value: 'in', text: 'inches' },
] as const;
const unmeasured = computed(() => fresh.value.filter((one) => !one.planned).length);
</script>

<template>
  <div class="page">
    <h1>Orders from a shop</h1>
    <p class="soft">Import the order table of any shop. Each order becomes a shipment only once.</p>
    <OrderFile v-model="csv" />
    <template v-if="table.rows.length > 0">
      <div class="acts">
        <BButton v-if="fresh.length > 0" variant="primary" :disabled="busy !== undefined" @click="send(true)">
          Make {{ counted(fresh.length, 'shipment') }}
        </BButton>
        <BButton v-if="trouble && ready" :disabled="busy !== undefined" @click="send(false)">
          Look over {{ counted(table.rows.length, 'row') }} again
        </BButton>
        <span v-if="busy" role="status">
          <progress :value="sent" :max="table.rows.length" /> {{ sent }} of {{ table.rows.length }}
        </span>
        <p v-if="seen.length > 0 && !busy" v-say class="came" data-test="orders">
          <template v-if="made.length > 0">{{ made.length }} made. </template>
          <template v-if="fresh.length > 0">{{ fresh.length }} new. </template>
          <template v-if="unmeasured > 0">{{ unmeasured }} of them still to be measured. </template>
          <template v-if="known.length > 0">{{ known.length }} known already. </template>
          <template v-if="refused.length > 0">{{ refused.length }} to be put right below.</template>
          <RouterLink v-if="made.length > 0" to="/?by=newest">To the bench</RouterLink>
        </p>
      </div>
      <p v-if="trouble" v-say class="trouble">{{ trouble }}</p>
      <details class="how" :open="isNaming" data-test="how">
        <summary>
          <strong>How it is read</strong>
          <span class="soft">
            {{ kept ? 'as the last table of this shop' : 'guessed by its head' }}:
            {{ counted(found.length, 'column')
            }}<template v-if="unread.length > 0"
              >; {{ unread.join(', ') }} {{ unread.length === 1 ? 'is' : 'are' }} not used</template
            >
          </span>
        </summary>
        <p v-if="guessed && !ready" class="trouble">
          Choose at least the columns of the order number and the buyer.
        </p>
        <div class="columns-of">
          <label v-for="column in ALL_COLUMNS" :key="column">
            {{ COLUMNS[column] }}
            <BFormSelect v-model="columns[column]" :name="`column.${column}`">
              <option value="">none</option>
              <option v-for="one in table.head" :key="one" :value="one">{{ one }}</option>
            </BFormSelect>
          </label>
          <label>
            Lengths without a unit are in
            <BFormSelect v-model="lengthsIn" name="lengths_in">
              <option value="">the studio’s unit, asked where it is odd</option>
              <option v-for="{ value, text } in UNITS" :key="value" :value="value">{{ text }}</option>
            </BFormSelect>
          </label>
          <label>
            Days as 04/05/2027 have
            <BFormSelect v-model="dates" name="dates">
              <option value="">to be asked for</option>
              <option value="dmy">the day first</option>
              <option value="mdy">the month first</option>
            </BFormSelect>
          </label>
          <label>
            Each is like
            <BFormSelect v-model="like" name="like">
              <option value="">nothing yet: by its row alone</option>
              <option v-for="kind in kinds ?? []" :key="kind.shipment" :value="kind.shipment">
                {{ kind.says }}
              </option>
            </BFormSelect>
          </label>
          <label>
            Name of the shop
            <BFormInput v-model="shop" name="shop" maxlength="80" />
          </label>
        </div>
      </details>
    </template>
    <p v-if="asksUnit" class="asks" data-test="asks-unit">
      Lengths without a unit are in
      <BButton
        v-for="{ value, text } in UNITS"
        :key="value"
        size="sm"
        variant="outline-secondary"
        @click="lengthsIn = value"
        >{{ text }}</BButton
      >
    </p>
    <OrderRows
      v-if="shown.length > 0"
      :shown="shown.slice(0, MOST_SHOWN)"
      :seen="seen"
      :cell-of="cellOf"
      :can-mend="canMend"
      @mend="mend"
    />
    <p v-if="shown.length > MOST_SHOWN" class="soft">
      {{ shown.length - MOST_SHOWN }} more are not listed here.
    </p>
  </div>
</template>

<style scoped>
.columns-of {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(220px, 100%), 1fr));
  gap: 8px 16px;
  margin-bottom: 16px;
}
label {
  font-weight: 600;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  margin: 12px 0;
}
.came {
  margin: 0;
}
.how {
  margin: 8px 0 16px;
  border-block: 1px solid var(--sedge);
}
.how summary {
  padding: 10px 0;
}
.how summary .soft {
  margin-left: 12px;
}
.asks {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}
.trouble {
  padding: 8px 12px;
  border-left: 4px solid var(--amber-moss);
  background: var(--paper);
}
</style>
