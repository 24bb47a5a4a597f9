<script setup lang="ts">
import { computed } from 'vue';

import type { OfferedChange } from '@/api/types';
import { oneIn, signed } from '@/words/grammar';

const { offered } = defineProps<{ offered: OfferedChange }>();
const emit = defineEmits<{ press: []; look: [at: boolean] }>();

const LEAST_G = 1;
const LEAST_MINUTES = 0.5;

const cost = computed(() => Number(offered.cost.amount));
const worth = computed(() => (offered.worth ? Number(offered.worth.amount) : undefined));
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
        <span v-if="also" class="soft figure">{{ also }}</span>
      </span>
      <span class="odds figure">{{ oneIn(offered.odds_after.about) }}</span>
      <span class="cost figure" data-sum="difference">{{ signed(cost, 2) }}</span>
      <span
        v-if="worth !== undefined"
        class="worth figure"
        data-sum="difference"
        :class="{ pays: worth > 0 && worth > cost }"
      >
        {{ worth < 0 ? `risks ${(-worth).toFixed(2)}` : `worth ${worth.toFixed(2)}` }}
      </span>
      <span v-else class="worth soft">no value given</span>
    </button>
  </li>
</template>

<style scoped>
li {
  border-bottom: 1px solid var(--sedge);
}
button {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 74px 62px 84px;
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
.cost,
.worth,
.odds {
  text-align: right;
}
.worth {
  font-size: var(--type-small);
}
.pays {
  color: var(--moss);
  font-weight: 600;
}
</style>
