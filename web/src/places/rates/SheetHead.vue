<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import type { TariffSheet } from '@/api/types';
import ChoiceField from '@/parts/ChoiceField.vue';
import TextField from '@/parts/TextField.vue';
import TickField from '@/parts/TickField.vue';
import TickList from '@/parts/TickList.vue';

import { LINES } from './choices';
import CollectionForm from './CollectionForm.vue';
import OutButton from './OutButton.vue';
import { useWrong } from './wrong';

/** What holds for every service of a price list: its name, money, fuel, tax, account, days and dates. */
const { fresh } = defineProps<{
  /** It is not kept yet. */
  fresh: boolean;
}>();
const sheet = defineModel<TariffSheet>({ required: true });
const wrong = useWrong();

const WITHIN = [
  'collection',
  'valid_from',
  'valid_to',
  'id',
  'discount_tiers',
  'fuel_on',
  'tax_on',
  'claims',
];
const wrongInside = computed(() => WITHIN.map((place) => wrong(place)).find(Boolean));
const claims = computed({
  get: () => sheet.value.claims != null,
  set: (now) => {
    sheet.value.claims = now ? { damage_days: '7', loss_days: '30' } : null;
  },
});
const FUEL_ON = LINES.filter(({ value }) => !['fuel', 'cover'].includes(value));
const OFF = LINES.filter(({ value }) => ['base', 'further', 'surcharge'].includes(value));
</script>

<template>
  <div class="head">
    <TextField v-model="sheet.carrier" label="Carrier" name="carrier" :error="wrong('carrier')" />
    <TextField
      v-model="sheet.currency"
      label="Money"
      name="currency"
      placeholder="EUR"
      :error="wrong('currency')"
    />
    <TextField
      v-model="sheet.fuel_percent"
      label="Fuel, %"
      name="fuel_percent"
      :error="wrong('fuel_percent')"
    />
    <TextField v-model="sheet.tax_percent" label="Tax, %" name="tax_percent" :error="wrong('tax_percent')" />
    <ChoiceField
      v-if="sheet.discount_tiers.length > 0"
      v-model="sheet.tier"
      label="Your account"
      name="tier"
      empty="None"
      :choices="
        sheet.discount_tiers.map(({ name, percent }) => ({ value: name, text: `${name}, ${percent} % off` }))
      "
      :error="wrong('tier')"
    />
  </div>
  <details class="more" :open="Boolean(wrongInside)">
    <summary>Collection days, dates, accounts, what fuel and tax are reckoned on, claims</summary>
    <CollectionForm v-model="sheet.collection" place="collection" label="Fetches parcels" />
    <div class="line">
      <TextField
        v-model="sheet.valid_from"
        type="date"
        label="Holds from"
        name="valid_from"
        :error="wrong('valid_from')"
      />
      <TextField
        v-model="sheet.valid_to"
        type="date"
        label="Holds to"
        name="valid_to"
        :error="wrong('valid_to')"
      />
      <TextField
        v-if="fresh"
        v-model="sheet.id"
        label="Short name"
        name="id"
        hint="Made from the name where it is empty"
        :error="wrong('id')"
      />
    </div>
    <div v-for="(tier, at) in sheet.discount_tiers" :key="at" class="line">
      <TextField
        v-model="tier.name"
        bare
        label="Account"
        placeholder="Account"
        :name="`discount_tiers/${at}/name`"
        :error="wrong(`discount_tiers/${at}/name`)"
      />
      <TextField
        v-model="tier.percent"
        bare
        class="value"
        label="Per cent off"
        placeholder="% off"
        :name="`discount_tiers/${at}/percent`"
        :error="wrong(`discount_tiers/${at}/percent`)"
      />
      <TickList v-model="tier.of" label="off" none="nothing" :choices="OFF" />
      <OutButton
        :label="`Take out ${tier.name || 'this account'}`"
        @press="sheet.discount_tiers.splice(at, 1)"
      />
    </div>
    <BButton
      size="sm"
      variant="link"
      @click="sheet.discount_tiers.push({ name: '', percent: '', of: ['base', 'further'] })"
      >+ Account</BButton
    >
    <div class="line">
      <TickList v-model="sheet.fuel_on" label="Fuel on" none="nothing" :choices="FUEL_ON" />
      <TickList v-model="sheet.tax_on" label="Tax on" none="nothing" :choices="LINES" />
      <span v-if="wrong('fuel_on') ?? wrong('tax_on')" class="error">{{
        wrong('fuel_on') ?? wrong('tax_on')
      }}</span>
    </div>
    <div class="line">
      <TickField v-model="claims" label="Names how long it hears of damage and loss" name="claims/has" />
      <template v-if="sheet.claims">
        <TextField
          v-model="sheet.claims.damage_days"
          class="value"
          label="Damage, days"
          name="claims/damage_days"
          :error="wrong('claims/damage_days')"
        />
        <TextField
          v-model="sheet.claims.loss_days"
          class="value"
          label="Loss, days"
          name="claims/loss_days"
          :error="wrong('claims/loss_days')"
        />
      </template>
    </div>
  </details>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.head {
  display: grid;
  grid-template-columns: minmax(160px, 2fr) repeat(3, minmax(70px, 1fr)) minmax(140px, 2fr);
  gap: 4px 12px;
  align-items: start;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
}
.value {
  width: 110px;
}
.more summary {
  min-height: 44px;
  padding: 10px 0;
  cursor: pointer;
}
.error {
  color: var(--rowan);
  font-weight: 600;
}
@include at.phone {
  .head {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
