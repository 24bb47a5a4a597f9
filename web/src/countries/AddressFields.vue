<script setup lang="ts">
import { computed } from 'vue';

import ChoiceField from '@/parts/ChoiceField.vue';
import TextField from '@/parts/TextField.vue';

import type { Address } from './address';
import CountryField from './CountryField.vue';
import { useCountries } from './useCountries';

/** An address, with the parts that its country writes; a part that holds something is shown wherever it goes. */
const {
  at,
  errors,
  called = 'Name',
  home,
  without = [],
} = defineProps<{
  /** The path of the address, as the server names it. */
  at: string;
  errors: Record<string, string>;
  called?: string;
  /** It is the studio's own. */
  home?: boolean;
  /** Parts that have a field elsewhere on the page. */
  without?: readonly (keyof Address)[];
}>();
const address = defineModel<Address>({ required: true });

const { of } = useCountries();
const country = computed(() => of(address.value.country));
/** Before a country is chosen, those that most countries write. */
const USUAL: readonly string[] = ['town', 'postcode'];
const has = (part: keyof Address) =>
  !without.includes(part) &&
  (address.value[part] !== '' ||
    (country.value?.format.lines.some((line) => line.includes(`{${part}}`)) ?? USUAL.includes(part)));
const regions = computed(() =>
  (country.value?.regions ?? []).map((region) => ({ value: region, text: region })),
);
const listedRegion = computed(() => {
  const { region } = address.value;
  return regions.value.length > 0 && (region === '' || regions.value.some(({ value }) => value === region));
});
const example = computed(() => country.value?.example ?? undefined);
const error = (part: keyof Address) => errors[`${at}.${part}`];
</script>

<template>
  <div class="address">
    <TextField v-model="address.name" :label="called" :name="`${at}.name`" :error="error('name')" />
    <TextField
      v-model="address.company"
      label="Company"
      :name="`${at}.company`"
      :error="error('company')"
      placeholder="optional"
    />
    <TextField
      v-model="address.street"
      label="Street and number"
      :name="`${at}.street`"
      hint="a comma begins a new line"
      :error="error('street')"
    />
    <CountryField
      v-if="!without.includes('country')"
      v-model="address.country"
      :name="`${at}.country`"
      :error="error('country')"
      :fixed="home"
    />
    <TextField
      v-if="has('neighbourhood')"
      v-model="address.neighbourhood"
      label="Neighbourhood"
      :name="`${at}.neighbourhood`"
      :error="error('neighbourhood')"
    />
    <TextField
      v-if="has('town')"
      v-model="address.town"
      label="Town"
      :name="`${at}.town`"
      :error="error('town')"
    />
    <template v-if="has('region')">
      <ChoiceField
        v-if="listedRegion"
        v-model="address.region"
        label="Region"
        :name="`${at}.region`"
        :choices="regions"
        empty="None"
        :error="error('region')"
      />
      <TextField
        v-else
        v-model="address.region"
        label="Region"
        :name="`${at}.region`"
        :error="error('region')"
      />
    </template>
    <TextField
      v-if="has('postcode')"
      v-model="address.postcode"
      label="Postcode"
      :name="`${at}.postcode`"
      :placeholder="example"
      :error="error('postcode')"
    />
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.address {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0 12px;
}
@include at.phone {
  .address {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
