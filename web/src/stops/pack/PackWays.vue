<script setup lang="ts">
import { BFormRadioGroup } from 'bootstrap-vue-next/components/BFormRadio';

import PaperLink from '@/parts/PaperLink.vue';
import { useShipment } from '@/shipment/useShipment';
import { counted } from '@/words/grammar';

import type { NextParcel } from './day';
import { sheetOf } from './sheet';

/** How the packing is shown, and what of it is printed. */
const { begun, next, away } = defineProps<{
  /** When the first step was done; nothing before that. */
  begun: string;
  /** The next parcel of the day. */
  next: NextParcel | undefined;
  /** Whether the server does not answer. */
  away: boolean;
}>();
const asList = defineModel<boolean>({ required: true });
const { id } = useShipment();
const VIEWS = [
  { value: false, text: 'one step at a time' },
  { value: true, text: 'all as a list' },
];
</script>

<template>
  <BFormRadioGroup v-model="asList" :options="VIEWS" buttons size="sm" aria-label="How it is shown" />
  <span class="papers">
    <PaperLink :href="sheetOf(id)">Pack sheet to print</PaperLink>
    <PaperLink :href="`/api/v1/shipments/${id}/unpacking-guide`">Unpacking guide for the buyer</PaperLink>
  </span>
  <span v-if="away" class="soft" role="status">
    The server is away: go on, ticks are kept and sent when it is back.
  </span>
  <span v-if="begun" class="soft figure">begun {{ begun }}</span>
  <RouterLink v-if="next" class="btn btn-sm btn-outline-secondary" :to="next.to" data-test="next-parcel">
    Then {{ next.title }}, {{ counted(next.left, 'parcel') }} to come
  </RouterLink>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.papers {
  display: flex;
  flex-wrap: wrap;
  gap: 0 16px;
  font-size: var(--type-small);
}
.papers :deep(a) {
  padding: 4px 0;
}
@include at.tablet {
  .papers :deep(a) {
    min-height: 44px;
    padding: 12px 0;
  }
}
</style>
