<script setup lang="ts">
import { BFormRadio } from 'bootstrap-vue-next/components/BFormRadio';
import { computed } from 'vue';

import type { Leaving } from '@/api/types';
import DraftField from '@/parts/DraftField.vue';
import PaperLink from '@/parts/PaperLink.vue';
import { useShipment } from '@/shipment/useShipment';
import { dayAndYear, weekday } from '@/units/show';
import { counted } from '@/words/grammar';

/** A carrier without a service of its own: the day, its number or none, the label, and what the counter charged. */
const { leaving } = defineProps<{ leaving: Leaving }>();
const { id, draft, money, save } = useShipment();

const on = computed({
  get: () => draft.sending.on,
  set: (day: string) => {
    draft.sending.on = day;
    void save();
  },
});
const said = (day: Leaving['days'][number]) =>
  `${weekday(day.on)} ${dayAndYear(day.on)}${day.others > 0 ? `, with ${counted(day.others, 'other parcel')}` : ''}`;
const sheet = computed(() => leaving.papers.includes('addresses'));
</script>

<template>
  <p class="soft">This carrier has no service of its own: book it with the carrier, or at the counter.</p>
  <fieldset v-if="leaving.days.length > 0">
    <legend>{{ leaving.handover === 'collection' ? 'Fetched on' : 'Taken there on' }}</legend>
    <BFormRadio v-model="on" name="sending.on" value="">Not decided</BFormRadio>
    <BFormRadio v-for="day in leaving.days" :key="day.on" v-model="on" name="sending.on" :value="day.on">
      {{ said(day) }}
    </BFormRadio>
  </fieldset>
  <div class="pair">
    <DraftField path="sending.tracking" label="Tracking number" hint="from the carrier" />
    <DraftField path="after.cost" :label="`Charged, in ${money}`" hint="by the counter; can follow" />
  </div>
  <DraftField v-if="!draft.sending.tracking" path="sending.no_number" label="The carrier gave no number" />
  <p v-if="sheet" class="soft">
    Use the counter’s own label, or
    <PaperLink :href="`/api/v1/shipments/${id}/papers/addresses`">print the address sheet</PaperLink>.
  </p>
</template>

<style scoped>
fieldset {
  margin: 0 0 8px;
  padding: 0;
  border: 0;
}
legend {
  color: var(--peat-soft);
  font-size: var(--type-text);
}
.pair {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(180px, 100%), 1fr));
  gap: 0 12px;
}
</style>
