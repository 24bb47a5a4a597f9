<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput';

import type { OrderView } from '@/api/types';
import { vSay } from '@/said/say';

import { COLUMNS } from './useOrders';
import type { Column } from './useOrders';

/** What came of each row; a cell that is not understood can be mended in its place. */
const { shown, seen, cellOf, canMend } = defineProps<{
  shown: readonly number[];
  seen: readonly OrderView[];
  cellOf: (at: number, field: string) => string;
  canMend: (field: string) => boolean;
}>();
const emit = defineEmits<{ mend: [at: number, field: string, text: string] }>();

const FROM: Record<NonNullable<OrderView['size_from']>, string> = {
  row: '',
  product: 'size as it was before',
  title: 'size from its title',
  like: 'size as the last one',
  nowhere: 'still to be measured',
};
const nameOf = (field: string) => COLUMNS[field as Column] ?? field;
/** A field with two faults has one cell. */
const fieldsOf = (one: OrderView) => [...new Set(one.refused.map(({ field }) => field))];
const whyOf = (one: OrderView, field: string) =>
  one.refused
    .filter((refusal) => refusal.field === field)
    .map(({ message }) => message)
    .join('; ');
const changed = (event: Event) => (event.target as HTMLInputElement).value;
</script>

<template>
  <table class="table stacked">
    <thead>
      <tr>
        <th scope="col">Order</th>
        <th scope="col">Piece</th>
        <th scope="col">Who gets it</th>
        <th scope="col">Is</th>
      </tr>
    </thead>
    <tbody>
      <template v-for="at in shown" :key="at">
        <tr v-if="seen[at]" :class="{ wrong: seen[at].refused.length > 0 }" :data-row="at">
          <td class="figure" data-is="Order">{{ seen[at].number || '–' }}</td>
          <td data-is="Piece">
            {{ seen[at].title || 'Untitled' }}
            <small v-if="seen[at].piece" class="soft">{{ seen[at].piece }}</small>
            <small v-if="seen[at].size_from && FROM[seen[at].size_from]" class="soft">
              {{ FROM[seen[at].size_from] }}
            </small>
          </td>
          <td data-is="Who gets it">
            {{ [seen[at].name, seen[at].town].filter(Boolean).join(', ') || '–' }}
          </td>
          <td data-is="Is">
            <template v-if="seen[at].refused.length > 0">
              <div v-for="field in fieldsOf(seen[at])" :key="field" class="mend">
                <label v-if="canMend(field)">
                  {{ nameOf(field) }}
                  <BFormInput
                    :name="`mend.${String(at)}.${field}`"
                    :model-value="cellOf(at, field)"
                    :aria-describedby="`why-${String(at)}-${field}`"
                    @change="emit('mend', at, field, changed($event))"
                  />
                </label>
                <strong v-else>{{ nameOf(field) }}</strong>
                <p :id="`why-${String(at)}-${field}`" v-say class="why">{{ whyOf(seen[at], field) }}</p>
              </div>
            </template>
            <RouterLink v-else-if="seen[at].shipment" :to="`/shipments/${seen[at].shipment}`">
              {{ seen[at].known ? 'known already' : 'made' }}
            </RouterLink>
            <template v-else>new</template>
          </td>
        </tr>
      </template>
    </tbody>
  </table>
</template>

<style scoped>
.table {
  width: 100%;
}
.table :is(th, td) {
  padding: 8px 16px 8px 0;
  border-bottom: 1px solid var(--sedge);
  vertical-align: top;
}
small {
  display: block;
}
.mend + .mend {
  margin-top: 8px;
}
.mend label {
  display: block;
  max-width: 32ch;
  font-weight: 600;
}
.why {
  max-width: 60ch;
  margin: 2px 0 0;
  color: var(--rowan);
  font-size: var(--type-small);
}
</style>
