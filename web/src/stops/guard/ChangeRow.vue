<script setup lang="ts">
import { computed } from 'vue';

import type { OfferedChange } from '@/api/types';
import { oneIn, signed } from '@/words/grammar';
import { HAZARDS } from '@/words/vocabulary';

const { offered } = defineProps<{ offered: OfferedChange }>();
const emit = defineEmits<{ press: []; look: [at: boolean] }>();

const LEAST_G = 1;
const LEAST_MINUTES = 0.5;

const cost = computed(() => Number(offered.cost.amount));
const saves = computed(() => (offered.saves ? Number(offered.saves.amount) : undefined));
const says = computed(() => {
  const money = saves.value;
  if (money === undefined) return 'no value given';
  const does = money < 0 ? 'adds' : 'saves';
  const amount = Math.abs(money).toFixed(2);
  return `${does} ${amount} ${offered.cost.currency} of expected damage a parcel`;
});
const pays = computed(() => (saves.value ?? 0) > Math.max(0, cost.value));
/** What it is done against, where that leads, and whether the carrier takes more for it. */
const beside = computed(() =>
  [
    offered.remedy_for ? `reduces the main risk: ${HAZARDS[offered.remedy_for]}` : '',
    offered.crosses_step ? 'moves to the next price band' : '',
  ]
    .filter(Boolean)
    .join('; '),
);
/** Grams and minutes, where there are any. */
const also = computed(() =>
  [
    Math.abs(offered.mass_g) >= LEAST_G ? `${signed(offered.mass_g)}\u00a0g` : '',
    Math.abs(offered.minutes) >= LEAST_MINUTES ? `${signed(offered.minutes)}\u00a0min` : '',
  ]
    .filter(Boolean)
    .join(', '),
);
</script>

<template>
  <li>
    <button
      type="button"
      @click="emit('press')"
      @mouseenter="emit('look', true)"
      @mouseleave="emit('look', false)"
      @focus="emit('look', true)"
      @blur="emit('look', false)"
    >
      <span class="name">
        <strong>{{ offered.label }}</strong>
        <span v-if="also" class="also soft figure">{{ also }}</span>
        <span class="worth soft figure" data-sum="difference" :class="{ pays }">{{ says }}</span>
        <span v-if="beside" class="beside soft">{{ beside }}</span>
      </span>
      <span class="odds figure">{{ oneIn(offered.odds_after.about) }}</span>
      <span class="cost figure" data-sum="difference">{{
        offered.priced ? signed(cost, 2) : 'no price'
      }}</span>
    </button>
  </li>
</template>

<style scoped>
li {
  border-bottom: 1px solid var(--sedge);
}
button {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 78px 78px;
  gap: 0 8px;
  align-items: baseline;
  width: 100%;
  min-height: 44px;
  padding: 6px 0 6px 8px;
  border: 0;
  border-left: 3px solid transparent;
  background: none;
  color: inherit;
  line-height: 1.25;
  text-align: left;
}
button:hover {
  border-left-color: var(--heather);
  background: var(--paper);
}
.name {
  display: flex;
  flex-wrap: wrap;
  gap: 0 8px;
  align-items: baseline;
}
.name strong {
  color: var(--water);
  text-decoration: underline;
  text-underline-offset: 2px;
}
.name .soft {
  font-size: var(--type-small);
}
.worth,
.beside {
  flex-basis: 100%;
}
.cost,
.odds {
  text-align: right;
}
.name .pays {
  color: var(--moss);
  font-weight: 600;
}
</style>
