<script setup lang="ts">
import { watchDebounced } from '@vueuse/core';
import { computed, ref, watch } from 'vue';

import { answer, api, Refused } from '@/api/client';
import { useRead } from '@/api/queries';
import TextField from '@/parts/TextField.vue';
import { decimals } from '@/units/show';
import { withPoint } from '@/units/typed';

/** What a studio counts in; other money asks for its rate, and shows what ten sums become by it. */
const { now, errors, isNew, begins } = defineProps<{
  /** The money that is kept. */
  now: string;
  errors: Record<string, string>;
  /** Before the studio was ever set up. */
  isNew: boolean;
  /** It is still to begin: the sums are those that every studio begins with. */
  begins: boolean;
}>();
const currency = defineModel<string>('currency', { required: true });
const rate = defineModel<string>('rate', { required: true });

const code = computed(() => currency.value.trim().toUpperCase());
const changes = computed(() => /^[A-Z]{3}$/.test(code.value) && code.value !== now);
watch(code, (then) => {
  if (currency.value !== then) currency.value = then;
});
// A rate is one of two kinds of money; for others it is asked anew.
watch(changes, (then) => {
  if (!then) rate.value = '';
});

const asked = ref({ currency: '', rate: '' });
watchDebounced(
  [code, rate],
  () => {
    asked.value = { currency: code.value, rate: withPoint(rate.value).trim() };
  },
  { debounce: 300 },
);
const wanted = computed(() => changes.value && Number(asked.value.rate) > 0);
const { data: shown, refused } = useRead({
  queryKey: ['money-change', asked],
  queryFn: ({ signal }) =>
    answer(
      api.GET('/api/v1/studio/settings/money', {
        params: { query: { ...asked.value, new: begins } },
        signal,
      }),
    ),
  enabled: wanted,
});
const sums = computed(() => (wanted.value ? (shown.value?.sums ?? []) : []));
const says = computed(() => {
  if (errors.rate) return errors.rate;
  return wanted.value && refused.value instanceof Refused ? refused.value.fields.rate : undefined;
});
</script>

<template>
  <div class="pair">
    <TextField
      v-model="currency"
      label="The studio counts in"
      name="currency"
      hint="a code of three letters, as EUR; prices of materials are kept in it"
      :error="errors.currency"
    />
    <TextField
      v-if="changes"
      v-model="rate"
      :label="`1 ${now} is worth, in ${code}`"
      name="rate"
      :error="says"
      :hint="
        isNew
          ? 'the hour of work, limits of value and prices that the program begins with are put into it; left open, prices and the hour begin at nothing'
          : 'as it is today; it is kept under Carriers'
      "
    />
  </div>
  <template v-if="changes && sums.length > 0">
    <table class="figure sums" data-test="sums">
      <thead>
        <tr>
          <th scope="col">ten of its sums</th>
          <th scope="col" class="number">in {{ now }}</th>
          <th scope="col" class="number">in {{ code }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="sum in sums" :key="sum.name">
          <th scope="row">{{ sum.name }}</th>
          <td class="number">{{ decimals(sum.before) }}</td>
          <td class="number">{{ decimals(sum.after) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="!isNew" class="soft">
      House rules, materials, presets and unsent shipments are converted to {{ code }} together. Parcels that
      were sent stay in {{ now }}, and price lists keep their own currency.
    </p>
  </template>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(280px, 100%), 1fr));
  gap: 0 12px;
}
.sums {
  width: 100%;
  margin-top: 8px;
}
.sums th[scope='row'] {
  font-weight: 400;
}
.number {
  padding-left: 12px;
  text-align: right;
}
</style>
