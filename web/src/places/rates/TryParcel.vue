<script setup lang="ts">
import { keepPreviousData } from '@tanstack/vue-query';
import { refDebounced } from '@vueuse/core';
import { computed, reactive, ref } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import type { QuotedService, TariffSheet } from '@/api/types';
import CountryField from '@/countries/CountryField.vue';
import { useCountries } from '@/countries/useCountries';
import NumberField from '@/parts/NumberField.vue';
import { kilograms } from '@/units/show';

/** A typed parcel, priced by a tariff as it stands in the page, kept or not. */
const { sheet, placed } = defineProps<{
  sheet: TariffSheet;
  /** Whether the place of each line's rule is told, for whoever writes the tariff as text. */
  placed?: boolean;
}>();

const parcel = reactive({
  length_mm: 910 as number | null,
  width_mm: 610 as number | null,
  height_mm: 112 as number | null,
  mass_kg: 4.2 as number | null,
});
const value = ref<number | null>(320);
const country = ref('');
const postcode = ref('');
const glass = ref(false);
const SIDES = [
  { key: 'length_mm', label: 'Length, mm' },
  { key: 'width_mm', label: 'Width, mm' },
  { key: 'height_mm', label: 'Depth, mm' },
  { key: 'mass_kg', label: 'Weight, kg' },
] as const;

const { listed } = useCountries();
const body = computed(() => ({
  sheet,
  parcel: {
    length_mm: parcel.length_mm ?? 0,
    width_mm: parcel.width_mm ?? 0,
    height_mm: parcel.height_mm ?? 0,
    mass_kg: parcel.mass_kg ?? 0,
    contents: glass.value ? (['glass'] as 'glass'[]) : [],
  },
  destination: { country: country.value || (listed.value[0]?.code ?? ''), postcode: postcode.value },
  value: value.value === null ? null : String(value.value),
}));
const KEYS_MS = 250;
const asked = refDebounced(
  computed(() => JSON.stringify(body.value)),
  KEYS_MS,
);
const { data, refused } = useRead({
  queryKey: computed(() => ['quote', asked.value]),
  queryFn: ({ signal }) =>
    answer(api.POST('/api/v1/sums/quote', { body: JSON.parse(asked.value) as typeof body.value, signal })),
  // What was put together before the studio was known has no country.
  enabled: computed(() => !asked.value.includes('"country":""')),
  placeholderData: keepPreviousData,
});
const errors = computed(() => refused.value?.fields ?? {});
const services = computed(() => data.value?.services ?? []);
/** What is wrong in the tariff is told beside it. */
const broken = computed(() => Object.keys(errors.value).some((field) => field.startsWith('sheet')));

const GOVERNS = { actual: 'weight', volumetric: 'size', minimum: 'the least' } as const;
function billed(service: QuotedService): string {
  return `${kilograms(service.billable_kg * 1000)} by ${GOVERNS[service.governs]}`;
}
</script>

<template>
  <section class="try" aria-label="Try a parcel">
    <h2>Try a parcel</h2>
    <div class="fields">
      <NumberField
        v-for="side in SIDES"
        :key="side.key"
        v-model="parcel[side.key]"
        :label="side.label"
        :name="`parcel.${side.key}`"
        :error="errors[`parcel.${side.key}`]"
      />
      <NumberField v-model="value" label="Worth" name="value" :error="errors.value" />
      <CountryField v-model="country" name="country" empty="The studio’s own" fixed />
      <label>
        Postcode
        <input v-model="postcode" class="form-control" name="postcode" maxlength="12" />
      </label>
      <label class="check">
        <input v-model="glass" type="checkbox" class="form-check-input" name="glass" /> Glass inside
      </label>
    </div>
    <p v-if="broken" class="wrong">The tariff has errors: see the list.</p>
    <table v-else class="figure" data-test="tried">
      <tbody v-for="service in services" :key="service.service">
        <tr>
          <th scope="row">{{ service.name }}</th>
          <td class="soft">{{ service.refused ?? billed(service) }}</td>
          <td class="number">
            <strong v-if="service.total">{{ service.total }}</strong>
            <span v-else class="no">refused</span>
          </td>
        </tr>
        <tr v-for="line in service.lines" :key="line.rule" class="line">
          <td>{{ line.name }}</td>
          <td class="soft rule">
            <code v-if="placed">{{ line.rule }}</code>
          </td>
          <td class="number">{{ line.amount }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
h2 {
  font-size: var(--type-lead);
}
label {
  font-weight: 600;
}
label :is(input, select) {
  font-weight: 400;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(120px, 1fr));
  gap: 8px 12px;
  align-items: end;
  margin-bottom: 12px;
}
.check {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 44px;
}
table {
  width: 100%;
}
th,
td {
  padding: 4px 8px 4px 0;
  text-align: left;
  vertical-align: baseline;
}
tbody {
  border-top: 1px solid var(--sedge);
}
.line td {
  padding-top: 0;
  font-size: var(--type-small);
}
.line td:first-child {
  padding-left: 12px;
}
.rule {
  overflow-wrap: anywhere;
}
.number {
  text-align: right;
  white-space: nowrap;
}
.no,
.wrong {
  color: var(--rowan);
}
</style>
