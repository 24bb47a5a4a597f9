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
    <ol class="figure">
      <li>
        <span>trim the sheet across</span><b>{{ units.length(carton.blank.width_mm) }}</b>
      </li>
      <li>
        <span>trim it up</span><b>{{ units.length(carton.blank.height_mm) }}</b>
      </li>
      <li v-if="carton.sheet.kind === 'joined'">
        <span>in two parts, cut apart at the score; the left one laps over the other</span>
        <b>{{ units.length(carton.blank.runs_across_mm[2] ?? 0) }}</b>
      </li>
      <li>
        <span>score up, from the left</span>
        <b>{{ carton.blank.runs_across_mm.slice(1, -1).map(units.number).join(' · ') }}</b>
      </li>
      <li>
        <span>score across, from below</span>
        <b>{{ carton.blank.runs_up_mm.slice(1, -1).map(units.number).join(' · ') }}</b>
      </li>
      <li>
        <span>slots {{ units.length(carton.slot_mm) }} wide, to the scores</span><b>{{ SLOTS }} ×</b>
      </li>
      <li>
        <span>bevel the tab, {{ units.length(carton.tab_mm) }} wide</span><b>2 ×</b>
      </li>
    </ol>
  </section>
</template>

<style scoped>
h2 {
  margin: 0 0 4px;
  font-size: 1.1875rem;
}
ol {
  margin: 0;
  padding: 0;
  list-style: none;
  counter-reset: cut;
}
li {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 12px;
  padding: 5px 0;
  border-bottom: 1px solid var(--sedge);
}
li > b {
  margin-left: auto;
  text-align: right;
}
</style>
