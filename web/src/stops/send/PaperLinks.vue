<script setup lang="ts">
import { computed } from 'vue';

import type { ParcelPaper } from '@/api/types';
import { useStudio } from '@/api/useStudio';
import PaperLink from '@/parts/PaperLink.vue';
import { useDocuments } from '@/parts/useDocuments';
import { LABELS, PAPERS } from '@/places/studio/words';
import { vSay } from '@/said/say';
import { useShipment } from '@/shipment/useShipment';

/** The papers that a parcel can have, as PDF, and its days for a calendar. */
const { id, papers, lacking } = defineProps<{
  id: string;
  papers: ParcelPaper[];
  /** Letters of an address that would be printed as empty boxes. */
  lacking: string;
}>();
const { plan } = useShipment();

const { studio } = useStudio();
const label = computed(() => LABELS.find(({ value }) => value === studio.value?.manners.label)?.text);
const sheet = computed(() => PAPERS.find(({ value }) => value === studio.value?.manners.paper)?.text);
const NAMES = computed<Record<ParcelPaper, { text: string; about: string }>>(() => ({
  label: { text: `Label, ${label.value ?? ''}`, about: 'for a label printer' },
  label_a4: { text: `Label on ${sheet.value ?? 'a sheet'}`, about: 'with a line to cut along' },
  marks: { text: 'Handling marks', about: 'for the five sides that are seen' },
  addresses: { text: 'Addresses for the box', about: 'in large letters, to stick on' },
  thank_you: { text: 'Card of thanks', about: 'on your own card, with room to write' },
  slip: { text: 'Packing slip', about: 'what is in it, without a price' },
  certificate: { text: 'Certificate', about: 'on your own card, to sign and seal' },
  condition: { text: 'Condition report', about: 'with the photographs before packing' },
  customs: { text: 'Customs paper', about: 'contents, value, origin, protected materials' },
  crating: { text: 'Brief for a crating service', about: 'sizes, weight, what it needs' },
  claim: { text: 'Claim file', about: 'all that a carrier asks for' },
}));
const shown = computed(() => papers.filter((paper) => paper !== 'claim'));
const { ready } = useDocuments();
</script>

<template>
  <div class="heading-row"><h2>Papers</h2></div>
  <p v-if="ready === false" class="soft">
    The paper service is still being built. It takes some minutes after the first start.
  </p>
  <p v-if="lacking" v-say class="mind" data-test="letters-lacking">
    Papers can’t print {{ lacking }}: empty boxes would stand there. Write the address in Latin, Greek or
    Cyrillic letters, or use the carrier’s own label.
  </p>
  <ul class="papers">
    <li v-for="paper in shown" :key="paper">
      <PaperLink :href="`/api/v1/shipments/${id}/papers/${paper}`" :data-paper="paper">{{
        NAMES[paper].text
      }}</PaperLink>
      <span class="soft">{{ NAMES[paper].about }}</span>
    </li>
    <li v-if="plan">
      <PaperLink :href="`/api/v1/shipments/${id}/unpacking-guide`">Unpacking guide</PaperLink>
      <span class="soft">for the buyer</span>
    </li>
    <li>
      <a :href="`/api/v1/shipments/${id}/calendar.ics`">Its days for your calendar</a>
      <span class="soft">cured, leaves, promised</span>
    </li>
  </ul>
</template>

<style scoped>
.papers {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
  align-items: baseline;
  border-bottom: 1px solid var(--sedge);
}
a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  font-weight: 600;
}
</style>
