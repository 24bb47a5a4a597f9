<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect';

import type { Studio } from '@/api/types';
import ListField from '@/parts/ListField.vue';
import TextField from '@/parts/TextField.vue';

import type { EditedOdds } from './useOdds';

/** Which route leads where, and when it is wet or hot there. */
const { studio, errors } = defineProps<{ studio: Studio; errors: Record<string, string> }>();
const odds = defineModel<EditedOdds>({ required: true });

function add(): void {
  const country = studio.countries[0]?.code ?? '';
  odds.value.places.push({
    country,
    postcode_prefixes: [],
    route: 'national',
    wet_months: [],
    hot_months: [],
  });
}
const SEASONS = [
  { of: 'wet_months', name: 'wet months', label: 'Wet months, as 11, 12, 1' },
  { of: 'hot_months', name: 'hot months', label: 'Hot months, as 6, 7, 8' },
] as const;
function setMonths(at: number, of: (typeof SEASONS)[number]['of'], months: string[]): void {
  const line = odds.value.places[at];
  if (line) line[of] = months.map(Number).filter(Number.isInteger);
}
</script>

<template>
  <details class="tables">
    <summary>
      Where which route leads
      <span class="soft">{{ odds.places.length }} lines, the first that fits counts</span>
    </summary>
    <p class="soft">
      To a country that no line names it is the usual route from your own: national within it, across a border
      to its neighbours, overseas to the rest.
    </p>
    <table class="stacked" data-test="places">
      <thead>
        <tr>
          <th scope="col">country</th>
          <th scope="col">postcodes that begin with</th>
          <th scope="col">route</th>
          <th v-for="season in SEASONS" :key="season.of" scope="col">{{ season.name }}</th>
          <th scope="col"><span class="visually-hidden">take away</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(place, at) in odds.places" :key="at">
          <td data-is="country">
            <TextField
              v-model="place.country"
              label="Country’s code"
              :name="`place.${at}.country`"
              :error="errors[`odds.places[${at}].country`]"
              bare
            />
          </td>
          <td data-is="postcodes that begin with">
            <ListField
              v-model="place.postcode_prefixes"
              label="Postcodes that begin with"
              :name="`place.${at}.postcodes`"
              :error="errors[`odds.places[${at}].postcode_prefixes`]"
              bare
            />
          </td>
          <td data-is="route">
            <BFormSelect v-model="place.route" :aria-label="`Route of line ${at + 1}`">
              <option v-for="route in studio.routes" :key="route.route" :value="route.route">
                {{ route.name }}
              </option>
            </BFormSelect>
          </td>
          <td v-for="season in SEASONS" :key="season.of" :data-is="season.name">
            <ListField
              :model-value="(place[season.of] ?? []).map(String)"
              :label="season.label"
              :name="`place.${at}.${season.of}`"
              :error="errors[`odds.places[${at}].${season.of}`]"
              bare
              @update:model-value="setMonths(at, season.of, $event)"
            />
          </td>
          <td>
            <button type="button" class="plain" @click="odds.places.splice(at, 1)">Take away</button>
          </td>
        </tr>
      </tbody>
    </table>
    <BButton size="sm" @click="add">Add a place</BButton>
  </details>
</template>
