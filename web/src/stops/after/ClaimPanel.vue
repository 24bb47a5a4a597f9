<script setup lang="ts">
import { computed } from 'vue';

import type { After } from '@/api/types';
import { counted } from '@/words/grammar';
import DraftField from '@/parts/DraftField.vue';
import PaperLink from '@/parts/PaperLink.vue';
import { vSay } from '@/said/say';
import { useShipment } from '@/shipment/useShipment';
import { dayAndYear } from '@/units/show';

/** What is asked of the carrier, until when, and what came of it in money. */
const { deadline } = defineProps<{ deadline?: NonNullable<After['deadline']> }>();
const { id, draft, handed, money } = useShipment();

const claim = computed(() => draft.after.claim);
const left = computed(() => {
  if (!deadline) return '';
  const { days_left: days } = deadline;
  if (days < 0) return `${counted(-days, 'day')} ago`;
  return days === 0 ? 'today' : `${counted(days, 'day')} left`;
});
const counts = computed(() =>
  deadline?.kind === 'damage' ? 'from the day it was delivered' : 'from the day it was handed over',
);
const worth = computed(() => handed.value?.worth?.amount ?? draft.value);
</script>

<template>
  <div class="heading-row"><h2>Claim</h2></div>
  <template v-if="deadline">
    <p v-if="claim.paid" class="done">The carrier has decided.</p>
    <p v-else-if="claim.sent_on" class="done">With the carrier since {{ dayAndYear(claim.sent_on) }}.</p>
    <p
      v-else
      v-say
      :class="deadline.days_left < 0 ? 'stop' : deadline.days_left <= 2 ? 'mind' : 'due'"
      data-test="deadline"
    >
      {{ deadline.days_left < 0 ? 'The last day was' : 'The carrier has to hear of it by' }}
      {{ dayAndYear(deadline.last_day) }}: {{ left }}.
    </p>
    <p class="soft">
      Counted {{ counts }}, {{ dayAndYear(deadline.from) }}.
      <template v-if="deadline.assumed"
        >Its tariff names no time; most carriers give as much. Ask yours.</template
      >
    </p>
  </template>
  <p v-else class="soft">No carrier, or no delivery date.</p>
  <div class="files no-print">
    <PaperLink class="btn btn-primary" :href="`/api/v1/shipments/${id}/papers/claim`" data-test="claim-file">
      Claim file as PDF
    </PaperLink>
    <PaperLink class="btn" :href="`/api/v1/shipments/${id}/claim.zip`">
      With all photographs, as one archive
    </PaperLink>
  </div>
  <div class="pair">
    <DraftField
      path="after.claim.asked"
      :label="`Asked for, in ${money}`"
      :hint="worth ? `empty: all that it is worth, ${worth}` : undefined"
    />
    <DraftField path="after.claim.number" />
    <DraftField path="after.claim.sent_on" />
    <DraftField path="after.claim.decided_on" />
    <DraftField path="after.claim.paid" :label="`Paid, in ${money}`" hint="0 where it refused" />
  </div>
</template>

<style scoped>
p {
  margin: 0 0 8px;
}
.due,
.done {
  font-weight: 600;
}
.mind {
  color: var(--amber-moss);
  font-weight: 600;
}
.stop {
  color: var(--rowan);
  font-weight: 600;
}
.files {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 8px 0;
}
.pair {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(180px, 100%), 1fr));
  gap: 0 12px;
}
</style>
