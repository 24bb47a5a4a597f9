<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import type { ServiceSheet } from '@/api/types';
import ChoiceField from '@/parts/ChoiceField.vue';
import TextField from '@/parts/TextField.vue';
import TickField from '@/parts/TickField.vue';

import CollectionForm from './CollectionForm.vue';
import CostsMore from './CostsMore.vue';
import ExceptionsForm from './ExceptionsForm.vue';
import FormatsForm from './FormatsForm.vue';
import PriceGrid from './PriceGrid.vue';
import { useWrong } from './wrong';

/** One service of a price list: what it takes, how it bills, its prices, what costs more and what is covered. */
const { at, zones, before, example } = defineProps<{
  at: number;
  zones: readonly string[];
  /** The names of what costs more with every service. */
  before: readonly string[];
  /** The same service with invented prices, which stand in fields that are empty. */
  example?: ServiceSheet;
}>();
const service = defineModel<ServiceSheet>({ required: true });
const emit = defineEmits<{ newZones: [names: string[]]; drop: [] }>();
const wrong = useWrong();
const place = computed(() => `services/${String(at)}`);
const HANDOVER = [
  { value: 'drop_off', text: 'drop-off' },
  { value: 'collection', text: 'collected' },
] as const;
const ROUTES = [
  { value: 'national', text: 'national' },
  { value: 'abroad', text: 'abroad' },
  { value: 'overseas', text: 'overseas' },
  { value: 'art_courier', text: 'art courier' },
] as const;
const route = computed({
  get: () => service.value.route ?? '',
  set: (now) => {
    service.value.route = now === '' ? null : (now as NonNullable<ServiceSheet['route']>);
  },
});
const other = computed({
  get: () => service.value.with_cover != null,
  set: (now) => {
    const { days_from, days_to } = service.value;
    service.value.with_cover = now ? { days_from, days_to, tracked: true } : null;
  },
});
const flat = computed(() => service.value.prices.zones.length === 0 && service.value.formats.length > 0);
</script>

<template>
  <details class="service" :open="at === 0">
    <summary>
      <h2>{{ service.name || `Service ${at + 1}` }}</h2>
      <span v-if="wrong(place)" class="error">something is wrong in it</span>
    </summary>
    <div class="fields">
      <TextField
        v-model="service.name"
        label="Service"
        :name="`${place}/name`"
        :error="wrong(`${place}/name`)"
      />
      <ChoiceField
        v-model="service.handover"
        label="Handover"
        :name="`${place}/handover`"
        :choices="HANDOVER"
      />
      <TextField
        v-model="service.days_from"
        label="Days, at best"
        :name="`${place}/days_from`"
        :error="wrong(`${place}/days_from`)"
      />
      <TextField
        v-model="service.days_to"
        label="Days, at worst"
        :name="`${place}/days_to`"
        :error="wrong(`${place}/days_to`)"
      />
      <TickField v-model="service.tracked" class="tick" label="Tracked" :name="`${place}/tracked`" />
    </div>
    <h3>Prices</h3>
    <template v-if="flat">
      <FormatsForm
        v-model="service.formats"
        :place="place"
        :zones="zones"
        :example="example?.formats"
        @new-zones="emit('newZones', $event)"
      />
      <p class="soft">It has no price by weight.</p>
    </template>
    <PriceGrid
      v-model="service.prices"
      :place="`${place}/prices`"
      :name="service.name || 'Prices'"
      :zones="zones"
      :example="example?.prices"
      @new-zones="emit('newZones', $event)"
    />
    <FormatsForm
      v-if="!flat"
      v-model="service.formats"
      :place="place"
      :zones="zones"
      @new-zones="emit('newZones', $event)"
    />
    <h3>Limits</h3>
    <div class="fields">
      <TextField
        v-model="service.limits.mass"
        label="Up to"
        :name="`${place}/limits/mass`"
        :error="wrong(`${place}/limits/mass`)"
      />
      <TextField
        v-model="service.limits.longest"
        label="Longest side"
        :name="`${place}/limits/longest`"
        :error="wrong(`${place}/limits/longest`)"
      />
      <TextField
        v-model="service.limits.second"
        label="Second side"
        placeholder="no limit"
        :name="`${place}/limits/second`"
        :error="wrong(`${place}/limits/second`)"
      />
      <TextField
        v-model="service.limits.length_plus_girth"
        label="Length + girth"
        :name="`${place}/limits/length_plus_girth`"
        :error="wrong(`${place}/limits/length_plus_girth`)"
      />
      <TickField
        v-model="service.limits.glass"
        class="tick"
        label="Takes glass"
        :name="`${place}/limits/glass`"
      />
    </div>
    <ExceptionsForm
      v-model="service.refuses"
      :place="`${place}/refuses`"
      :zones="zones"
      add="Add an exclusion"
    />
    <h3>How weight is billed</h3>
    <div class="fields">
      <TextField
        v-model="service.billable.divisor"
        label="Size counts as"
        :name="`${place}/billable/divisor`"
        :error="wrong(`${place}/billable/divisor`)"
      />
      <TextField
        v-model="service.billable.volumetric_above"
        label="Only above"
        placeholder="always"
        :name="`${place}/billable/volumetric_above`"
        :error="wrong(`${place}/billable/volumetric_above`)"
      />
      <TextField
        v-model="service.billable.size_step"
        label="Sides up to the next"
        :name="`${place}/billable/size_step`"
        :error="wrong(`${place}/billable/size_step`)"
      />
      <TextField
        v-model="service.billable.weight_step"
        label="Weight up to the next"
        :name="`${place}/billable/weight_step`"
        :error="wrong(`${place}/billable/weight_step`)"
      />
      <TextField
        v-model="service.billable.minimum"
        label="At least"
        placeholder="nothing"
        :name="`${place}/billable/minimum`"
        :error="wrong(`${place}/billable/minimum`)"
      />
    </div>
    <h3>Surcharges</h3>
    <CostsMore v-model="service.rules" :place="`${place}/rules`" :zones="zones" :before="before" />
    <h3>Cover</h3>
    <div class="fields">
      <TextField
        v-model="service.cover.included"
        label="Included"
        placeholder="0"
        :name="`${place}/cover/included`"
        :error="wrong(`${place}/cover/included`)"
      />
      <TextField
        v-model="service.cover.step"
        label="More for each"
        placeholder="none sold"
        :name="`${place}/cover/step`"
        :error="wrong(`${place}/cover/step`)"
      />
      <TextField
        v-model="service.cover.price_per_step"
        label="At"
        :name="`${place}/cover/price_per_step`"
        :error="wrong(`${place}/cover/price_per_step`)"
      />
      <TextField
        v-model="service.cover.most"
        label="At most"
        :name="`${place}/cover/most`"
        :error="wrong(`${place}/cover/most`)"
      />
      <TickField
        v-model="service.cover.excludes_glass"
        class="tick"
        label="Glass is left out"
        :name="`${place}/cover/excludes_glass`"
      />
    </div>
    <ExceptionsForm
      v-model="service.cover.exclusions"
      :place="`${place}/cover/exclusions`"
      :zones="zones"
      add="Add an exception"
    />
    <details class="rare">
      <summary>Route and other days</summary>
      <CollectionForm
        v-if="service.handover === 'collection'"
        v-model="service.collection"
        :place="`${place}/collection`"
        label="Fetched on other days than the carrier’s others"
      />
      <div class="fields">
        <ChoiceField
          v-model="route"
          label="It goes"
          :name="`${place}/route`"
          empty="as the destination says"
          :choices="ROUTES"
        />
        <TextField
          v-model="service.roughness"
          label="How rough, 1 as usual"
          placeholder="1"
          :name="`${place}/roughness`"
          :error="wrong(`${place}/roughness`)"
        />
      </div>
      <div class="fields">
        <TickField
          v-model="other"
          class="tick"
          label="Goes otherwise with cover"
          :name="`${place}/with_cover/has`"
        />
        <template v-if="service.with_cover">
          <TextField
            v-model="service.with_cover.days_from"
            label="Days, at best"
            :name="`${place}/with_cover/days_from`"
            :error="wrong(`${place}/with_cover/days_from`)"
          />
          <TextField
            v-model="service.with_cover.days_to"
            label="Days, at worst"
            :name="`${place}/with_cover/days_to`"
            :error="wrong(`${place}/with_cover/days_to`)"
          />
          <TickField
            v-model="service.with_cover.tracked"
            class="tick"
            label="Tracked"
            :name="`${place}/with_cover/tracked`"
          />
        </template>
      </div>
      <BButton size="sm" variant="link" @click="emit('drop')">Delete this service</BButton>
    </details>
  </details>
</template>

<style scoped>
.service {
  padding: 4px 0;
  border-top: 2px solid var(--peat);
}
summary {
  min-height: 44px;
  padding: 8px 0;
  cursor: pointer;
}
h2 {
  display: inline;
  font-size: var(--type-lead);
}
h3 {
  margin: 12px 0 4px;
  font-size: var(--type-strong);
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(140px, 1fr));
  gap: 4px 12px;
  align-items: start;
}
.tick {
  align-self: center;
}
.error {
  margin-left: 8px;
  color: var(--rowan);
  font-weight: 600;
}
</style>
