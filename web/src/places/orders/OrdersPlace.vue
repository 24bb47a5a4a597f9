<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect';
import { computed, ref } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import { counted } from '@/words/grammar';
import FileText from '@/parts/FileText.vue';
import { vSay } from '@/said/say';

import { useOrders } from './useOrders';
import type { Column } from './useOrders';

/** Orders from a shop: a table, its columns named once, a shipment of each order that is not known yet. */
const COLUMNS: { column: Column; name: string }[] = [
  { column: 'number', name: 'Order number' },
  { column: 'name', name: 'Who gets it' },
  { column: 'street', name: 'Street' },
  { column: 'town', name: 'Town' },
  { column: 'postcode', name: 'Postcode' },
  { column: 'country', name: 'Country' },
  { column: 'title', name: 'Piece' },
  { column: 'value', name: 'Sold for' },
  { column: 'promised', name: 'Promised for' },
];
const MOST_SHOWN = 200;

const csv = ref('');
const { columns, like, table, named, seen, fresh, made, refused, sent, busy, trouble, send } = useOrders(csv);
const { data: kinds } = useRead({
  queryKey: ['kinds'],
  queryFn: ({ signal }) => answer(api.GET('/api/v1/kinds', { signal })),
});
const ready = computed(
  () => table.value.rows.length > 0 && Boolean(named.value.number) && Boolean(named.value.name),
);
const known = computed(() => seen.value.filter((one) => one.known));
/** What has to be looked at first. */
const shown = computed(() =>
  [...refused.value, ...seen.value.filter((one) => one.refused.length === 0)].slice(0, MOST_SHOWN),
);
</script>

<template>
  <div class="page">
    <h1>Orders from a shop</h1>
    <p class="soft">
      Any shop gives its orders as a table. Say once which column is which; an order that was made a shipment
      is never made one again.
    </p>
    <FileText v-model="csv" label="The table, with its head" name="orders.csv" />
    <template v-if="table.head.length > 0">
      <h2>Which column is which</h2>
      <div class="columns-of">
        <label v-for="{ column, name } in COLUMNS" :key="column">
          {{ name }}
          <BFormSelect v-model="columns[column]" :name="`column.${column}`">
            <option value="">none</option>
            <option v-for="one in table.head" :key="one" :value="one">{{ one }}</option>
          </BFormSelect>
        </label>
        <label>
          Each is like
          <BFormSelect v-model="like" name="like">
            <option value="">nothing yet: measured one by one</option>
            <option v-for="kind in kinds ?? []" :key="kind.shipment" :value="kind.shipment">
              {{ kind.says }}
            </option>
          </BFormSelect>
        </label>
      </div>
      <p v-if="!ready" class="soft">Name at least the columns of the order number and of who gets it.</p>
      <div class="acts">
        <BButton :disabled="!ready || busy !== undefined" @click="send(false)">
          Look over {{ counted(table.rows.length, 'row') }}
        </BButton>
        <BButton v-if="fresh.length > 0" variant="primary" :disabled="busy !== undefined" @click="send(true)">
          Make {{ counted(fresh.length, 'shipment') }}
        </BButton>
        <span v-if="busy" role="status">
          <progress :value="sent" :max="table.rows.length" /> {{ sent }} of {{ table.rows.length }}
        </span>
      </div>
    </template>
    <p v-if="trouble" v-say class="trouble">{{ trouble }}</p>
    <p v-if="seen.length > 0 && !busy" v-say data-test="orders">
      <template v-if="made.length > 0">{{ made.length }} made. </template>
      <template v-if="fresh.length > 0">{{ fresh.length }} new. </template>
      <template v-if="known.length > 0">{{ known.length }} known already. </template>
      <template v-if="refused.length > 0">{{ refused.length }} to be put right in the table.</template>
      <RouterLink v-if="made.length > 0" to="/?by=newest">To the bench</RouterLink>
    </p>
    <table v-if="shown.length > 0" class="table">
      <thead>
        <tr>
          <th scope="col">Order</th>
          <th scope="col">Piece</th>
          <th scope="col">Who gets it</th>
          <th scope="col">Is</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(one, at) in shown" :key="at">
          <td class="figure">{{ one.number || '–' }}</td>
          <td>{{ one.title || 'Untitled' }}</td>
          <td>{{ [one.name, one.town].filter(Boolean).join(', ') || '–' }}</td>
          <td>
            <span v-if="one.refused.length > 0" class="wrong">
              {{ one.refused.map(({ message }) => message).join('; ') }}
            </span>
            <RouterLink v-else-if="one.shipment" :to="`/shipments/${one.shipment}`">
              {{ one.known ? 'known already' : 'made' }}
            </RouterLink>
            <template v-else>new</template>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="seen.length > shown.length" class="soft">
      {{ seen.length - shown.length }} more are not listed here.
    </p>
  </div>
</template>

<style scoped>
h2 {
  margin: 16px 0 8px;
  font-size: var(--type-lead);
}
.columns-of {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(220px, 100%), 1fr));
  gap: 8px 16px;
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
.table {
  width: 100%;
}
.table :is(th, td) {
  padding: 8px 16px 8px 0;
  border-bottom: 1px solid var(--sedge);
  vertical-align: top;
}
.wrong {
  color: var(--rowan);
}
.trouble {
  padding: 8px 12px;
  border-left: 4px solid var(--amber-moss);
  background: var(--paper);
}
</style>
