<script setup lang="ts">
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect';
import { computed } from 'vue';

import { useStudio } from '@/api/useStudio';
import { OUTCOMES } from '@/words/vocabulary';

import type { Log } from './useLog';

/** Which parcels of the log are looked at. */
const { log, filtered } = defineProps<{ log: Log; filtered: boolean }>();
const { sought, sort, page } = log;
const { studio } = useStudio();

const ANY = { value: '', text: 'any' };
const SORTS = [
  { value: 'newest', text: 'newest first' },
  { value: 'oldest', text: 'oldest first' },
  { value: 'title', text: 'by title' },
  { value: 'buyer', text: 'by buyer' },
  { value: 'carriage', text: 'dearest carriage' },
  { value: 'weight_off', text: 'weight furthest off' },
  { value: 'odds', text: 'likeliest damaged' },
];
const named = (names: readonly string[] | undefined) => [
  ANY,
  ...(names ?? []).map((name) => ({ value: name, text: name })),
];
const outcomes = [ANY, { value: 'none', text: 'On its way' }, ...OUTCOMES];
const classes = computed(() => [
  ANY,
  ...(studio.value?.classes ?? []).map(({ class: key, name }) => ({ value: key, text: name })),
]);
const routes = computed(() => [
  ANY,
  ...(studio.value?.routes ?? []).map(({ route: key, name }) => ({ value: key, text: name })),
]);
/** Eight filters fill the first screen of a phone, and three lines of a tablet: there they are unfolded when wanted, or when one of them holds. */
const unfolded = window.matchMedia('(min-width: 1101px)').matches || filtered;
</script>

<template>
  <details class="no-print" :open="unfolded">
    <summary>Filter and sort</summary>
    <div class="ways">
      <label
        >Outcome <BFormSelect v-model="sought.outcome.value" name="outcome" :options="outcomes" size="sm"
      /></label>
      <label
        >Kind <BFormSelect v-model="sought.class.value" name="class" :options="classes" size="sm"
      /></label>
      <label>Way <BFormSelect v-model="sought.route.value" name="route" :options="routes" size="sm" /></label>
      <label
        >Carrier
        <BFormSelect
          v-model="sought.carrier.value"
          name="carrier"
          :options="named(page.data.value?.carriers)"
          size="sm"
      /></label>
      <label
        >Preset
        <BFormSelect
          v-model="sought.preset.value"
          name="preset"
          :options="named(page.data.value?.presets)"
          size="sm"
      /></label>
      <label>From <input v-model="sought.from.value" type="date" name="from" class="form-control" /></label>
      <label>To <input v-model="sought.to.value" type="date" name="to" class="form-control" /></label>
      <label>Sorted <BFormSelect v-model="sort" name="sort" :options="SORTS" size="sm" /></label>
    </div>
  </details>
</template>

<style scoped lang="scss">
@use '@/styles/at';

summary {
  min-height: 44px;
  color: var(--peat-soft);
  line-height: 44px;
}
@include at.wider-than-phone {
  /* Once it was closed on a wide screen, it can be opened again. */
  details[open] > summary {
    display: none;
  }
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  margin-bottom: 12px;
}
.ways label {
  display: flex;
  gap: 8px;
  align-items: center;
  color: var(--peat-soft);
}
.ways label {
  max-width: 100%;
}
.ways select,
.ways input {
  width: auto;
  min-width: 0;
}
</style>
