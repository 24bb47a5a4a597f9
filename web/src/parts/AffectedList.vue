<script setup lang="ts">
import type { Affected } from '@/api/types';
import { money } from '@/units/show';

import ChangeFigures from './ChangeFigures.vue';

/** Shipments that a change of the house would change, and by how much. */
const { affected } = defineProps<{ affected: Affected[] }>();

function price({ impact }: Affected): string {
  const { price_now: now, price_then: then } = impact;
  if (!now || !then || now.amount === then.amount) return '';
  return `${money(now)} → ${money(then)}`;
}
</script>

<template>
  <ul>
    <li v-for="one in affected" :key="one.id">
      <RouterLink :to="{ name: 'guard', params: { id: one.id } }">{{ one.title || 'Untitled' }}</RouterLink>
      <span v-if="one.impact.refused" class="refused">keeps its plan: {{ one.impact.refused }}</span>
      <ChangeFigures v-else-if="one.impact.change" :change="one.impact.change" />
      <span v-if="price(one)" class="figure soft">{{ price(one) }}</span>
    </li>
  </ul>
</template>

<style scoped>
ul {
  margin: 0 0 12px;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  flex-direction: column;
  padding: 6px 0;
  border-bottom: 1px solid var(--sedge);
}
.refused {
  color: var(--rowan);
}
</style>
