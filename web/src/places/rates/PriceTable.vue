<script setup lang="ts">
import { computed } from 'vue';

import type { ZonePrice } from '@/api/types';
import DecimalInput from '@/parts/DecimalInput.vue';
import { kilograms } from '@/units/show';

import type { Wrong } from './useRates';

/** The prices of a service or a format: a line for each weight, a column for each zone; each price is typed in its place. */
const { place, name, wrong } = defineProps<{ place: string; name: string; wrong: Wrong[] }>();
const prices = defineModel<ZonePrice[]>({ required: true });

const weights = computed(() => {
  const all = prices.value.flatMap(({ steps }) => steps.map(({ up_to_g }) => up_to_g));
  return [...new Set(all)].toSorted((one, other) => one - other);
});
const further = computed(() => prices.value.some(({ per_further_kg: price }) => price != null));

function wrongAt(...rest: (string | number)[]): string | undefined {
  const at = [place, ...rest].join('/');
  return wrong.find((one) => one.place === at || one.place.startsWith(`${at}/`))?.says;
}
const stepOf = (zone: ZonePrice, weight: number) => zone.steps.findIndex(({ up_to_g }) => up_to_g === weight);
</script>

<template>
  <div>
    <table class="figure stacked">
      <caption class="visually-hidden">
        {{
          name
        }}
      </caption>
      <thead class="soft">
        <tr>
          <th scope="col">up to</th>
          <th v-for="zone in prices" :key="zone.zone" scope="col" class="number">{{ zone.zone }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="weight in weights" :key="weight">
          <th scope="row">{{ kilograms(weight) }}</th>
          <td v-for="(zone, at) in prices" :key="zone.zone" class="number" :data-is="zone.zone">
            <template v-for="(step, index) in zone.steps" :key="index">
              <DecimalInput
                v-if="index === stepOf(zone, weight)"
                v-model="step.price"
                :class="{ 'is-invalid': wrongAt(at, 'steps', index) }"
                :aria-label="`${name}, up to ${kilograms(weight)}, ${zone.zone}`"
                :title="wrongAt(at, 'steps', index)"
              />
            </template>
            <span v-if="stepOf(zone, weight) < 0" class="soft">–</span>
          </td>
        </tr>
        <tr v-if="further">
          <th scope="row">each kg more</th>
          <td v-for="(zone, at) in prices" :key="zone.zone" class="number" :data-is="zone.zone">
            <DecimalInput
              v-if="zone.per_further_kg != null"
              v-model="zone.per_further_kg"
              :class="{ 'is-invalid': wrongAt(at, 'per_further_kg') }"
              :aria-label="`${name}, each kilogram more, ${zone.zone}`"
              :title="wrongAt(at, 'per_further_kg')"
            />
            <span v-else class="soft">not taken</span>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
th,
td {
  padding: 4px 12px 4px 0;
  border-top: 1px solid var(--sedge);
  font-weight: 400;
  text-align: left;
  white-space: nowrap;
}
.number {
  text-align: right;
}
input {
  width: 92px;
  margin-left: auto;
  text-align: right;
}
</style>
