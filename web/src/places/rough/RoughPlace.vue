<script setup lang="ts">
import { keepPreviousData } from '@tanstack/vue-query';
import { refDebounced } from '@vueuse/core';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, reactive, ref } from 'vue';
import { useRouter } from 'vue-router';

import { answer, api, Refused } from '@/api/client';
import { useRead } from '@/api/queries';
import type { Inputs, RoughCase } from '@/api/types';
import CountryField from '@/countries/CountryField.vue';
import { CONSTRUCTIONS } from '@/words/vocabulary';
import ChoiceField from '@/parts/ChoiceField.vue';
import LengthField from '@/parts/LengthField.vue';
import TextField from '@/parts/TextField.vue';
import { vSay } from '@/said/say';
import { kilograms, money } from '@/units/show';
import { useUnits } from '@/units/useUnits';

/** A price for somebody on the phone, before anybody has looked at the piece. */
const units = useUnits();
const router = useRouter();
const typed = reactive({
  width: '',
  height: '',
  depth: '',
  construction: '',
  country: '',
  postcode: '',
  value: '',
});
const inputs = computed(() => ({
  piece: {
    width: typed.width || null,
    height: typed.height || null,
    depth: typed.depth || null,
    construction: typed.construction || null,
  },
  buyer: { country: typed.country, postcode: typed.postcode },
  value: typed.value || null,
}));
const KEYS_MS = 250;
const asked = refDebounced(
  computed(() => JSON.stringify({ inputs: inputs.value, unit: units.unit.value })),
  KEYS_MS,
);
const enough = computed(() => typed.width !== '' && typed.height !== '' && typed.country !== '');
const { data, refused, away } = useRead({
  queryKey: computed(() => ['rough', asked.value]),
  queryFn: ({ signal }) => {
    const body = JSON.parse(asked.value) as { inputs: Inputs; unit: 'mm' };
    return answer(api.POST('/api/v1/plans/rough', { body, signal }));
  },
  enabled: enough,
  placeholderData: keepPreviousData,
});
const errors = computed(() => (enough.value ? (refused.value?.fields ?? {}) : {}));
const rough = computed(() => (enough.value && !refused.value ? data.value : undefined));
const trouble = ref('');

const kind = ({ construction }: RoughCase) =>
  CONSTRUCTIONS.find(({ value }) => value === construction)?.text ?? construction;
const parcel = ({ outside, mass_g }: RoughCase) =>
  outside
    ? `${units.size(outside.across_mm, outside.up_mm, outside.through_mm)}, ${kilograms(mass_g ?? 0)}`
    : '';

async function begin(): Promise<void> {
  try {
    const body = { inputs: inputs.value as unknown as Inputs, unit: units.unit.value };
    const made = await answer(api.POST('/api/v1/shipments', { body }));
    await router.push({ name: 'measure', params: { id: made.id } });
  } catch (error) {
    trouble.value =
      error instanceof Refused
        ? 'Correct the marked fields first.'
        : 'The server doesn’t answer, and no shipment was created. Try again.';
  }
}
</script>

<template>
  <div class="page">
    <div class="heading-row"><h1>Price estimate</h1></div>
    <p class="soft">
      For a buyer on the phone: size, destination and value. Leave a field open to see the price of each
      choice.
    </p>
    <div class="rough">
      <form class="panel" @submit.prevent>
        <LengthField v-model="typed.width" label="Width" name="piece.width" :error="errors['piece.width']" />
        <LengthField
          v-model="typed.height"
          label="Height"
          name="piece.height"
          :error="errors['piece.height']"
        />
        <LengthField
          v-model="typed.depth"
          label="Depth"
          name="piece.depth"
          hint="as usual, where you don’t know"
          :error="errors['piece.depth']"
        />
        <ChoiceField
          v-model="typed.construction"
          label="Type of piece"
          name="piece.construction"
          :choices="CONSTRUCTIONS"
          empty="not known yet"
        />
        <CountryField v-model="typed.country" name="buyer.country" :error="errors['buyer.country']" fixed />
        <TextField
          v-model="typed.postcode"
          label="Postcode"
          name="buyer.postcode"
          :error="errors['buyer.postcode']"
        />
        <TextField v-model="typed.value" label="Worth" name="value" :error="errors.value" />
      </form>
      <section aria-label="Price estimate">
        <p v-if="away" v-say class="soft">The server does not answer. Trying again.</p>
        <p v-else-if="!enough" class="soft">Enter a width, a height and a country to see the price.</p>
        <template v-else-if="rough">
          <p v-if="rough.least && rough.most" v-say class="says" data-test="rough">
            The buyer pays
            <strong class="figure">{{
              rough.least.amount === rough.most.amount
                ? money(rough.least)
                : `${rough.least.amount} to ${money(rough.most)}`
            }}</strong>
          </p>
          <p v-else class="stop">No service takes it: ask an art courier or a packer.</p>
          <table class="panel figure">
            <caption class="visually-hidden">
              By kind of piece
            </caption>
            <thead class="soft">
              <tr>
                <th scope="col">as</th>
                <th scope="col" class="extra">parcel</th>
                <th scope="col">best service</th>
                <th scope="col" class="number">carriage</th>
                <th scope="col" class="number extra">costs you</th>
                <th scope="col" class="number">buyer pays</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="one in rough.cases" :key="one.construction">
                <th scope="row">{{ kind(one) }}</th>
                <td class="extra">{{ one.refused ?? parcel(one) }}</td>
                <td>{{ one.service ?? 'none takes it' }}</td>
                <td class="number">{{ one.carriage?.amount ?? '–' }}</td>
                <td class="number extra">{{ one.costs?.amount ?? '–' }}</td>
                <td class="number">
                  <strong>{{ one.pays ? money(one.pays) : '–' }}</strong>
                </td>
              </tr>
            </tbody>
          </table>
          <p class="soft">
            Packed by the house’s rules, with cover and charge as the house has them. Measured and weighed it
            may come to something else: say so.
          </p>
          <BButton variant="primary" class="no-print" @click="begin">Begin a shipment with this</BButton>
          <p v-if="trouble" v-say class="stop">{{ trouble }}</p>
        </template>
      </section>
    </div>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.page {
  max-width: 1240px;
}
h1 {
  margin: 4px 0;
  font-size: var(--type-title);
}
.rough {
  display: grid;
  grid-template-columns: minmax(240px, 320px) minmax(0, 1fr);
  gap: 16px 24px;
  align-items: start;
}
form {
  padding: 12px 16px;
}
.says {
  font-size: var(--type-lead);
}
.says strong {
  font-size: var(--type-title);
}
table {
  width: 100%;
  margin: 8px 0;
}
th,
td {
  padding: 8px 10px;
  font-weight: 400;
  text-align: left;
}
tbody tr {
  border-top: 1px solid var(--sedge);
}
.number {
  text-align: right;
}
.stop {
  color: var(--rowan);
  font-weight: 600;
}
@include at.tablet {
  .rough {
    grid-template-columns: 1fr;
  }
  .extra {
    display: none;
  }
}
</style>
