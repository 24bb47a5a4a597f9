<script setup lang="ts">
import { computed } from 'vue';

import type { BrokenPicture } from '@/api/types';
import { counted } from '@/words/grammar';

/** Photographs without their picture, by the shipment that they are of. */
const { broken, all } = defineProps<{
  broken: BrokenPicture[];
  /** How many there are in all; the first are listed. */
  all: number;
}>();

const by = computed(() => {
  const shipments = new Map<string, { title: string; missing: number; changed: number }>();
  for (const { shipment, title, why } of broken) {
    const row = shipments.get(shipment) ?? { title, missing: 0, changed: 0 };
    row[why] += 1;
    shipments.set(shipment, row);
  }
  return [...shipments].map(([id, row]) => ({ id, ...row }));
});
const said = ({ missing, changed }: { missing: number; changed: number }) =>
  [missing && `${counted(missing, 'picture')} missing`, changed && `${counted(changed, 'picture')} broken`]
    .filter(Boolean)
    .join(', ');
</script>

<template>
  <ul data-test="broken-pictures">
    <li v-for="row in by" :key="row.id">{{ row.title || 'untitled' }}: {{ said(row) }}</li>
    <li v-if="all > broken.length" class="soft">and {{ all - broken.length }} more</li>
  </ul>
</template>

<style scoped>
ul {
  max-height: 160px;
  margin: 0 0 8px;
  padding-left: 20px;
  overflow-y: auto;
}
li {
  overflow-wrap: anywhere;
}
</style>
