<script setup lang="ts">
import type { Affected, Money } from '@/api/types';

import ChangeFigures from './ChangeFigures.vue';
import SumOf from './SumOf.vue';

/** Shipments that a change of the house would change, and by how much. */
const { affected } = defineProps<{ affected: Affected[] }>();

/** What the carrier is paid now and then, where that differs. */
function price({ impact }: Affected): { now: Money; then: Money } | undefined {
  const { price_now: now, price_then: then } = impact;
  return now && then && now.amount !== then.amount ? { now, then } : undefined;
}
</script>

<template>
  <ul>
    <li v-for="one in affected" :key="one.id">
      <RouterLink :to="{ name: 'guard', params: { id: one.id } }">{{ one.title || 'Untitled' }}</RouterLink>
      <span v-if="one.impact.refused" class="refused">keeps its plan: {{ one.impact.refused }}</span>
      <ChangeFigures v-else-if="one.impact.change" :change="one.impact.change" />
      <span v-if="price(one)" class="soft">
        carrier <SumOf of="to_carrier" :sum="price(one)!.now" /> →
        <SumOf of="to_carrier_then" :sum="price(one)!.then" />
      </span>
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
