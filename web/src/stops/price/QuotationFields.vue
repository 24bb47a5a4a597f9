<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import ChoiceField from '@/parts/ChoiceField.vue';
import NumberField from '@/parts/NumberField.vue';
import TextField from '@/parts/TextField.vue';
import { emptyQuotation } from '@/shipment/draft';
import { useShipment } from '@/shipment/useShipment';

/** Prices that somebody quoted: a packer, or a carrier without a tariff. Each is then a row among the services. */
const { draft, errors, save } = useShipment();

const ROUTES = [
  { value: 'own_van', text: 'in your own van' },
  { value: 'art_courier', text: 'with an art courier' },
  { value: 'regional', text: 'as any parcel, within the region' },
  { value: 'national', text: 'as any parcel, across the country' },
  { value: 'abroad', text: 'as any parcel, across a border' },
  { value: 'overseas', text: 'as any parcel, overseas' },
] as const;

const typed = computed(() => Object.entries(draft.quotations));
const error = (key: string, field: string) => errors.value[`quotations.${key}.${field}`];

function add(): void {
  let number = typed.value.length + 1;
  while (draft.quotations[`q${String(number)}`]) number += 1;
  draft.quotations[`q${String(number)}`] = emptyQuotation();
}
function drop(key: string): void {
  if (draft.service === `quoted/${key}`) draft.service = '';
  Reflect.deleteProperty(draft.quotations, key);
  void save();
}
</script>

<template>
  <section aria-label="Quoted price" class="no-print">
    <h3>Quoted price</h3>
    <p class="soft">
      Enter a price quoted by a packer, an art courier or a carrier without a tariff. It is listed with the
      services.
    </p>
    <fieldset v-for="[key, quotation] in typed" :key="key">
      <legend>{{ quotation.from || 'A quotation' }}</legend>
      <div class="fields">
        <TextField
          v-model="quotation.from"
          label="From"
          :name="`quotations.${key}.from`"
          :error="error(key, 'from')"
        />
        <TextField
          v-model="quotation.what"
          label="For what"
          :name="`quotations.${key}.what`"
          :error="error(key, 'what')"
        />
        <TextField
          v-model="quotation.price"
          label="Price, all together"
          :name="`quotations.${key}.price`"
          :error="error(key, 'price')"
        />
        <TextField
          v-model="quotation.covers"
          label="Covers up to"
          :name="`quotations.${key}.covers`"
          :error="error(key, 'covers')"
        />
        <NumberField
          v-model="quotation.days_from"
          label="Working days, at best"
          :name="`quotations.${key}.days_from`"
          :error="error(key, 'days_from')"
        />
        <NumberField
          v-model="quotation.days_to"
          label="At worst"
          :name="`quotations.${key}.days_to`"
          :error="error(key, 'days_to')"
        />
        <TextField
          v-model="quotation.until"
          label="Holds until"
          type="date"
          :name="`quotations.${key}.until`"
          :error="error(key, 'until')"
        />
        <ChoiceField
          v-model="quotation.route"
          label="How it travels"
          :name="`quotations.${key}.route`"
          :choices="ROUTES"
          empty="as any parcel to that place"
          :error="error(key, 'route')"
        />
      </div>
      <BButton size="sm" variant="outline-secondary" @click="drop(key)">Take it away</BButton>
    </fieldset>
    <BButton variant="outline-secondary" @click="add">Add a quotation</BButton>
  </section>
</template>

<style scoped>
h3 {
  margin: 0 0 4px;
  font-size: var(--type-strong);
}
fieldset {
  margin: 0 0 12px;
  padding: 8px 12px 12px;
  border: 1px solid var(--sedge);
  border-radius: var(--corner);
  background: var(--paper);
}
legend {
  float: none;
  width: auto;
  margin: 0;
  padding: 0 4px;
  font-size: var(--type-text);
  font-weight: 600;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(190px, 100%), 1fr));
  gap: 4px 12px;
}
</style>
