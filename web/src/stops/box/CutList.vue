<script setup lang="ts">
import type { MakeOf } from '@/api/types';
import { useUnits } from '@/units/useUnits';

const { carton } = defineProps<{ carton: MakeOf<'slotted_box'> }>();
const units = useUnits();
/** Between four walls there are three slots, above and below. */
const SLOTS = 6;
</script>

<template>
  <section aria-label="Cut list">
    <h2>Cut list, running, in {{ units.unit.value }}</h2>
    <table class="figure">
      <thead class="visually-hidden">
        <tr>
          <th scope="col">what is cut or scored, in this order</th>
          <th scope="col">where, or how often</th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <th scope="row">trim the sheet across</th>
          <td>{{ units.length(carton.blank.width_mm) }}</td>
        </tr>
        <tr>
          <th scope="row">trim it up</th>
          <td>{{ units.length(carton.blank.height_mm) }}</td>
        </tr>
        <tr v-if="carton.sheet.kind === 'joined'">
          <th scope="row">in two parts, cut apart at the score; the left one laps over the other</th>
          <td>{{ units.length(carton.blank.runs_across_mm[2] ?? 0) }}</td>
        </tr>
        <tr>
          <th scope="row">score up, from the left</th>
          <td>{{ carton.blank.runs_across_mm.slice(1, -1).map(units.number).join(' · ') }}</td>
        </tr>
        <tr>
          <th scope="row">score across, from below</th>
          <td>{{ carton.blank.runs_up_mm.slice(1, -1).map(units.number).join(' · ') }}</td>
        </tr>
        <tr>
          <th scope="row">slots {{ units.length(carton.slot_mm) }} wide, to the scores</th>
          <td>{{ SLOTS }} ×</td>
        </tr>
        <tr>
          <th scope="row">bevel the tab, {{ units.length(carton.tab_mm) }} wide</th>
          <td>2 ×</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
h2 {
  margin: 0 0 4px;
  font-size: 1.1875rem;
}
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
