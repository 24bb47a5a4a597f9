<script setup lang="ts">
import { computed } from 'vue';

import type { After } from '@/api/types';
import DraftField from '@/parts/DraftField.vue';
import { useShipment } from '@/shipment/useShipment';
import { kilograms, money as amountOf } from '@/units/show';
import { useUnits } from '@/units/useUnits';

/** What a parcel weighed, measured, cost and took, beside what was planned for it. */
const { beside } = defineProps<{ beside: NonNullable<After['beside']> }>();
const { draft, money } = useShipment();
const units = useUnits();

const sized = (which: 'planned' | 'was') => {
  const sides = [beside.across_mm[which], beside.up_mm[which], beside.through_mm[which]];
  return sides.every((side) => typeof side === 'number')
    ? units.size(...(sides as [number, number, number]))
    : '';
};
/** What it took is known from the ticks, unless somebody wrote it down. */
const byTicks = computed(() => draft.after.minutes === null && typeof beside.ticked_minutes === 'number');
const rows = computed(() => [
  {
    name: 'weight',
    planned: `${kilograms(beside.mass_g.planned)} ± ${kilograms(beside.plus_minus_g)}`,
    was: typeof beside.mass_g.was === 'number' ? kilograms(beside.mass_g.was) : 'not weighed',
  },
  { name: 'outside', planned: sized('planned'), was: sized('was') || 'not measured' },
  {
    name: 'carriage',
    planned: beside.cost ? amountOf(beside.cost.planned) : '–',
    was: beside.cost?.was ? amountOf(beside.cost.was) : 'no bill yet',
  },
  ...(beside.paid ? [{ name: 'the buyer paid', planned: amountOf(beside.paid), was: 'for carriage' }] : []),
  {
    name: 'packing',
    planned: `${beside.minutes.planned.toFixed(0)} min`,
    was:
      typeof beside.minutes.was === 'number'
        ? `${beside.minutes.was.toFixed(0)} min${byTicks.value ? ', by the ticks' : ''}`
        : 'not written down',
  },
]);
</script>

<template>
  <div class="heading-row"><h2>Beside the plan</h2></div>
  <table>
    <thead>
      <tr>
        <td />
        <th scope="col">planned</th>
        <th scope="col">it was</th>
      </tr>
    </thead>
    <tbody class="figure">
      <tr v-for="row in rows" :key="row.name" :data-row="row.name">
        <th scope="row">{{ row.name }}</th>
        <td>{{ row.planned }}</td>
        <td>{{ row.was }}</td>
      </tr>
    </tbody>
  </table>
  <div class="pair">
    <DraftField path="after.cost" :label="`The carrier’s bill, in ${money}`" />
    <DraftField path="after.minutes" :label="byTicks ? 'Minutes, where the ticks are wrong' : undefined" />
  </div>
</template>

<style scoped>
table {
  width: 100%;
  margin-bottom: 8px;
  border-collapse: collapse;
}
th,
td {
  padding: 5px 8px 5px 0;
  border-bottom: 1px solid var(--sedge);
  text-align: left;
  vertical-align: baseline;
}
thead th {
  color: var(--peat-soft);
  font-weight: 400;
}
.pair {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(150px, 100%), 1fr));
  gap: 0 12px;
}
</style>
