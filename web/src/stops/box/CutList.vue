<script setup lang="ts">
import { computed } from 'vue';

import type { Blank } from '@/api/types';
import { useUnits } from '@/units/useUnits';

/** What to cut, score and take out of one part, in the order in which it is done. */
const { blank, slotMm, tabMm } = defineProps<{
  blank: Blank;
  slotMm: number;
  tabMm: number;
}>();
const units = useUnits();
/** Four walls have four flaps at an end, with three slots between them. */
const FLAPS = 4;
const SLOTS = 3;
const LAP = 'lap';

const ends = computed(() =>
  slotMm > 0 ? Math.ceil(blank.panels.filter(({ role }) => role === 'flap').length / FLAPS) : 0,
);
const hasTab = computed(() => blank.panels.some(({ role, name }) => role === 'tab' && name !== LAP));
/** What one part of a blank laps outside the next one. */
const lap = computed(() => blank.panels.find(({ name }) => name === LAP));
const scores = (runs: number[]) => runs.slice(1, -1).map(units.number).join(' · ');
const rows = computed(() => [
  { says: 'trim the sheet across', is: units.length(blank.width_mm) },
  { says: 'trim it up', is: units.length(blank.height_mm) },
  { says: 'score up, from the left', is: scores(blank.runs_across_mm) },
  { says: 'score across, from below', is: scores(blank.runs_up_mm) },
  ...(ends.value > 0
    ? [
        { says: `slots ${units.length(slotMm)} wide, to the scores`, is: `${SLOTS * ends.value} ×` },
        { says: 'as much off the last flap, beside the tab', is: `${ends.value} ×` },
      ]
    : []),
  ...(blank.inner_flap_mm == null
    ? []
    : [{ says: 'trim the flaps of both narrow sides to', is: units.length(blank.inner_flap_mm) }]),
  ...(lap.value ? [{ says: 'leave the lap at the right, as high as the walls', is: '1 ×' }] : []),
  ...(ends.value === 0 && blank.panels.length > 1
    ? [{ says: 'cut the corners away, along the drawing', is: '4 ×' }]
    : []),
  ...(hasTab.value ? [{ says: `bevel the tab, ${units.length(tabMm)} wide`, is: '2 ×' }] : []),
]);
</script>

<template>
  <table class="figure">
    <thead class="visually-hidden">
      <tr>
        <th scope="col">what is cut or scored, in this order</th>
        <th scope="col">where, or how often</th>
      </tr>
    </thead>
    <tbody>
      <template v-for="row in rows" :key="row.says">
        <tr v-if="row.is">
          <th scope="row">{{ row.says }}</th>
          <td>{{ row.is }}</td>
        </tr>
      </template>
    </tbody>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}
tbody tr {
  border-bottom: 1px solid var(--sedge);
}
tbody th {
  padding: 5px 12px 5px 0;
  font-weight: 400;
}
td {
  padding: 5px 0;
  font-weight: 600;
  text-align: right;
}
</style>
