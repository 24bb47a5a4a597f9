<script setup lang="ts">
import type { LineRule, Offer, Quote } from '@/api/types';
import SumOf from '@/parts/SumOf.vue';
import { day, kilograms, money } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import { condition, effect } from './rules';

const { quote, offer } = defineProps<{ quote: Quote; offer: Extract<Offer, { kind: 'priced' }> }>();
const units = useUnits();

/** The rule that a line follows, in words. */
function words(rule: LineRule): string {
  switch (rule.kind) {
    case 'step':
      return `up to ${kilograms(rule.up_to_g)}, ${offer.zone}`;
    case 'further':
      return `${rule.count_kg} kg begun above that`;
    case 'percent':
      return `${rule.percent} % of the lines above`;
    case 'cover':
      return `beyond ${money(rule.included)} included`;
    case 'format':
      return `up to ${kilograms(rule.up_to_g)}, ${offer.zone}`;
    case 'quoted':
      return rule.until ? `holds until ${day(rule.until)}` : 'as they said';
    case 'tier':
      return `${rule.percent} % off, by your account`;
    case 'surcharge':
      return condition(rule.when, units);
    case 'ruled':
      return rule.when.kind === 'always'
        ? effect(rule.what)
        : `${condition(rule.when, units)}: ${effect(rule.what)}`;
  }
}
</script>

<template>
  <table class="figure">
    <tbody>
      <tr v-for="line in offer.lines" :key="line.name">
        <th scope="row">{{ line.name }}</th>
        <td class="soft" data-sum="line">{{ words(line.rule) }}</td>
        <td class="amount"><SumOf of="line" :sum="line.amount" /></td>
      </tr>
      <tr class="total">
        <th scope="row">Carrier total</th>
        <td class="soft">covered up to <SumOf of="covered" :sum="offer.covered" /></td>
        <td class="amount"><SumOf of="quoted" :sum="offer.total" /></td>
      </tr>
    </tbody>
  </table>
  <p class="soft figure">
    Girth {{ units.length(quote.billable.girth_mm) }}, length + girth
    {{ units.length(quote.billable.length_plus_girth_mm) }}, as the carrier rounds them.
  </p>
</template>

<style scoped>
table {
  width: 100%;
  margin-bottom: 8px;
}
th,
td {
  padding: 4px 8px 4px 0;
  border-top: 1px solid var(--sedge);
  font-weight: 400;
  text-align: left;
}
.amount {
  text-align: right;
  white-space: nowrap;
}
.total th,
.total .amount {
  font-weight: 700;
}
p {
  margin-bottom: 8px;
}
</style>
