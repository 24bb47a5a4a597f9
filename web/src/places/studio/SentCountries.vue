<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect';
import { computed, ref } from 'vue';

import type { Settings } from '@/api/types';
import { useStudio } from '@/api/useStudio';
import { useCountries } from '@/countries/useCountries';
import ListField from '@/parts/ListField.vue';

type Sent = Settings['countries'];

/** The countries that a studio sends to, each with its route and the months in which it is wet or hot there. */
const { errors, home } = defineProps<{ errors: Record<string, string>; home: string }>();
const countries = defineModel<Sent>({ required: true });

const { all, nameOf } = useCountries();
const { studio } = useStudio();
const routes = computed(() => studio.value?.routes ?? []);
const more = computed(() =>
  all.value.filter(({ code }) => !countries.value.some((one) => one.code === code)),
);
const chosen = ref('');

function add(): void {
  if (!chosen.value) return;
  countries.value.push({ code: chosen.value, route: null, wet_months: [], hot_months: [] });
  chosen.value = '';
}
const SEASONS = [
  { of: 'wet_months', name: 'Wet months' },
  { of: 'hot_months', name: 'Hot months' },
] as const;
function setMonths(at: number, of: (typeof SEASONS)[number]['of'], months: string[]): void {
  const row = countries.value[at];
  if (row) row[of] = months.map(Number).filter(Number.isInteger);
}
const wrong = (at: number) =>
  Object.entries(errors).find(([field]) => field.startsWith(`countries[${String(at)}].`))?.[1];
</script>

<template>
  <table v-if="countries.length > 0" data-test="sent-to">
    <thead>
      <tr>
        <th scope="col">country</th>
        <th scope="col">the way there</th>
        <th v-for="season in SEASONS" :key="season.of" scope="col">{{ season.name.toLowerCase() }}</th>
        <th scope="col"><span class="visually-hidden">take away</span></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(country, at) in countries" :key="country.code">
        <th scope="row">
          {{ country.name ?? nameOf(country.code) }}
          <span v-if="country.code === home" class="soft">yours</span>
          <p v-if="wrong(at)" class="error">{{ wrong(at) }}</p>
        </th>
        <td>
          <BFormSelect
            :model-value="country.route ?? ''"
            :name="`countries.${country.code}.route`"
            :aria-label="`The way to ${nameOf(country.code)}`"
            size="sm"
            @update:model-value="(route) => (country.route = (route || null) as typeof country.route)"
          >
            <option value="">the usual one</option>
            <option v-for="route in routes" :key="route.route" :value="route.route">{{ route.name }}</option>
          </BFormSelect>
        </td>
        <td v-for="season in SEASONS" :key="season.of">
          <ListField
            :model-value="(country[season.of] ?? []).map(String)"
            :label="season.name"
            :name="`countries.${country.code}.${season.of}`"
            bare
            @update:model-value="(months: string[]) => setMonths(at, season.of, months)"
          />
        </td>
        <td>
          <BButton
            size="sm"
            :aria-label="`Take away ${nameOf(country.code)}`"
            @click="countries.splice(at, 1)"
          >
            Take away
          </BButton>
        </td>
      </tr>
    </tbody>
  </table>
  <div class="add">
    <label>
      Another country
      <BFormSelect v-model="chosen" name="another-country">
        <option value="">Choose</option>
        <option v-for="country in more" :key="country.code" :value="country.code">{{ country.name }}</option>
      </BFormSelect>
    </label>
    <BButton :disabled="!chosen" @click="add">Add it</BButton>
  </div>
</template>

<style scoped>
table {
  width: 100%;
}
th,
td {
  padding: 4px 8px 4px 0;
  font-weight: 400;
  vertical-align: middle;
}
thead th {
  color: var(--peat-soft);
}
.error {
  margin: 0;
  color: var(--rowan);
}
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
  margin: 8px 0;
}
.add label {
  flex: 1 1 220px;
  font-weight: 600;
}
</style>
