<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import type { LogPage } from '@/api/types';
import { useStudio } from '@/api/useStudio';
import { dayAndYear, kilograms } from '@/units/show';
import { oneIn, worded } from '@/words/grammar';
import { OUTCOMES } from '@/words/vocabulary';

/** Parcels that left, a row each. */
const { rows } = defineProps<{ rows: LogPage['rows'] }>();
const emit = defineEmits<{ again: [id: string] }>();
const { studio } = useStudio();
const classNames = computed(() => new Map((studio.value?.classes ?? []).map((one) => [one.class, one.name])));

/** The money of what left before the studio counted in another. */
const otherMoney = (code?: string | null) => (code && code !== studio.value?.catalogue.currency ? code : '');
/** One in so many, to two digits from a hundred on, as odds are said elsewhere. */
function about(probability: number): number {
  const many = Math.max(1, Math.round(1 / Math.max(probability, 1e-9)));
  return many < 100 ? many : Number(many.toPrecision(2));
}
const weighed = (row: LogPage['rows'][number]) =>
  typeof row.weighed_g === 'number'
    ? `${kilograms(row.weighed_g)}, ${row.weighed_g >= row.planned_g ? '+' : '−'}${Math.abs(((row.weighed_g - row.planned_g) / row.planned_g) * 100).toFixed(0)} %`
    : `≈ ${kilograms(row.planned_g)}`;
</script>

<template>
  <div class="table">
    <table class="figure stacked" data-test="log">
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
          <td data-is="left">{{ dayAndYear(row.left_on) }}</td>
          <td>
            <RouterLink :to="{ name: 'after', params: { id: row.id } }">{{
              row.title || 'Untitled'
            }}</RouterLink>
            <span class="soft">{{ row.buyer }}, {{ classNames.get(row.class) }}</span>
          </td>
          <td data-is="with">
            {{ row.carrier ?? 'no carrier' }} <span class="soft">{{ row.service }}</span>
          </td>
          <td class="number" data-is="odds">{{ oneIn(about(row.probability)) }}</td>
          <td class="number" data-is="weight">{{ weighed(row) }}</td>
          <td class="number" data-is="carriage">
            {{ row.billed ?? row.carriage ?? '–' }} {{ otherMoney(row.currency) }}
            <span v-if="row.billed && row.carriage" class="soft">for {{ row.carriage }}</span>
          </td>
          <td class="number" data-is="minutes">
            {{ typeof row.took === 'number' ? row.took.toFixed(0) : `≈ ${row.minutes.toFixed(0)}` }}
          </td>
          <td :class="row.outcome" data-is="came">
            {{ row.outcome ? worded(OUTCOMES, row.outcome) : 'on its way' }}
          </td>
          <td><BButton size="sm" class="no-print" @click="emit('again', row.id)">As last time</BButton></td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.table {
  /* What is only read out stays within it. */
  position: relative;
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
  font-size: var(--type-small);
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
</style>
