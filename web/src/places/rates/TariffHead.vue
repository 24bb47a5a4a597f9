<script setup lang="ts">
import { computed } from 'vue';

import type { Tariff } from '@/api/types';
import DecimalInput from '@/parts/DecimalInput.vue';
import { condition, effect } from '@/stops/price/rules';
import { dayAndYear } from '@/units/show';
import { useUnits } from '@/units/useUnits';

/** What holds for every service of a price list: its name, fuel, tax, days and rules. */
const { version } = defineProps<{ version: number | undefined }>();
const tariff = defineModel<Tariff>({ required: true });
const units = useUnits();
const holds = computed(() => {
  const { valid_from: from, valid_to: to } = tariff.value;
  if (from && to) return `holds from ${dayAndYear(from)} to ${dayAndYear(to)}`;
  if (from) return `holds from ${dayAndYear(from)}`;
  return to ? `holds until ${dayAndYear(to)}` : 'holds until it is changed';
});
</script>

<template>
  <div class="head">
    <label
      >Carrier
      <input v-model="tariff.carrier" class="form-control" name="carrier" maxlength="80" />
    </label>
    <label v-if="version === undefined"
      >Short name
      <input v-model="tariff.id" class="form-control" name="id" maxlength="40" />
    </label>
    <label
      >Fuel, %
      <DecimalInput v-model="tariff.fuel_percent" name="fuel_percent" />
    </label>
    <label
      >Tax, %
      <DecimalInput v-model="tariff.tax_percent" name="tax_percent" />
    </label>
    <label v-if="tariff.discount_tiers?.length"
      >Your account
      <select v-model="tariff.tier" class="form-select" name="tier">
        <option v-for="tier in tariff.discount_tiers" :key="tier.name" :value="tier.name">
          {{ tier.name }}, {{ tier.percent }} % off
        </option>
      </select>
    </label>
  </div>
  <p class="soft figure">
    Prices in {{ tariff.currency }}; {{ holds
    }}<template v-if="version !== undefined">; edition {{ version }}</template
    >. Zones: {{ tariff.zones.map((zone) => zone.name).join(', ') }}.
  </p>
  <ol v-if="tariff.rules?.length" class="figure">
    <li v-for="rule in tariff.rules" :key="rule.name">
      <strong>{{ rule.name }}</strong>: {{ condition(rule.when, units) }} – {{ effect(rule.what)
      }}<span v-if="rule.replaces?.length" class="soft">, in place of {{ rule.replaces.join(', ') }}</span>
    </li>
  </ol>
</template>

<style scoped>
.head {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 8px 12px;
  align-items: end;
}
.head label {
  font-weight: 600;
}
.head :is(input, select) {
  font-weight: 400;
}
ol {
  padding-left: 24px;
}
</style>
