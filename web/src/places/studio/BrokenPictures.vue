<script setup lang="ts">
import { computed } from 'vue';

import type { BrokenPicture } from '@/api/types';
import { counted } from '@/words/grammar';

/** Photographs without their picture, and parcels without their handover record, by shipment. */
const { broken, all } = defineProps<{
  broken: BrokenPicture[];
  /** How many there are in all; the first are listed. */
  all: number;
}>();

interface Row {
  title: string;
  missing: number;
  changed: number;
  record?: BrokenPicture['why'];
}

const by = computed(() => {
  const shipments = new Map<string, Row>();
  for (const { shipment, title, what, why } of broken) {
    const row = shipments.get(shipment) ?? { title, missing: 0, changed: 0 };
    if (what === 'handover_record') row.record = why;
    else row[why] += 1;
    shipments.set(shipment, row);
  }
  return [...shipments].map(([id, row]) => ({ id, ...row }));
});
const said = ({ missing, changed, record }: Row) =>
  [
    missing && `${counted(missing, 'picture')} missing`,
    changed && `${counted(changed, 'picture')} broken`,
    record && `handover record ${record === 'missing' ? 'missing' : 'broken'}`,
  ]
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
