<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormRadio } from 'bootstrap-vue-next/components/BFormRadio';
import { computed, watch } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import type { Leaving } from '@/api/types';
import { counted } from '@/words/grammar';
import DraftField from '@/parts/DraftField.vue';
import SumOf from '@/parts/SumOf.vue';
import StandInNote from '@/parts/StandInNote.vue';
import { vSay } from '@/said/say';
import { useShipment } from '@/shipment/useShipment';
import { dayAndYear, weekday } from '@/units/show';

import CounterFields from './CounterFields.vue';

/** The service that was chosen, the day it leaves, and what its carrier said. */
const { leaving, busy, trouble, left } = defineProps<{
  leaving: Leaving;
  busy: boolean;
  trouble: string;
  /** It was handed over. */
  left: boolean;
}>();
const on = defineModel<string>('on', { required: true });
const emit = defineEmits<{ book: []; cancel: [] }>();
const { id, summary, draft } = useShipment();

const best = computed(() => (summary.value?.best?.chosen ? summary.value.best : undefined));
const booking = computed(() => leaving.booking ?? undefined);
/** It is booked, or may be. */
const stands = computed(() => {
  const state = booking.value?.state;
  return state === 'asked' || state === 'booked' || state === 'cancelling' ? booking.value : undefined;
});
/** Another service was chosen since. */
const other = computed(() => stands.value && !left && stands.value.service !== draft.service);
// The carrier is asked for its days beside the page, which does not wait for it.
const { data: slots } = useRead({
  queryKey: computed(() => ['slots', id, draft.service, leaving.bookable]),
  queryFn: ({ signal }) =>
    answer(api.GET('/api/v1/shipments/{id}/slots', { params: { path: { id } }, signal })),
  enabled: computed(() => leaving.bookable && !stands.value && !left),
});
const days = computed(() => slots.value?.days ?? leaving.days);
const cutOff = computed(() => slots.value?.cut_off ?? leaving.cut_off);
watch(
  days,
  (days) => {
    if (!days.some((day) => day.on === on.value)) on.value = days[0]?.on ?? '';
  },
  { immediate: true },
);
const said = (day: Leaving['days'][number]) =>
  `${weekday(day.on)} ${dayAndYear(day.on)}${day.others > 0 ? `, with ${counted(day.others, 'other parcel')}` : ''}`;
const fetched = computed(() => leaving.handover === 'collection');
</script>

<template>
  <div class="heading-row">
    <h2>{{ leaving.reach === 'none' && !stands ? 'Carrier' : 'Booking' }}</h2>
  </div>
  <StandInNote v-if="leaving.reach === 'simulated'" does="answers as a carrier would, and books nothing" />
  <p v-if="leaving.held" v-say class="mind" data-test="held">
    This studio comes from a backup. Confirm first that the original is stopped.
    <RouterLink :to="{ name: 'with-carriers' }">Carrier bookings</RouterLink>
  </p>
  <template v-if="stands">
    <p v-if="stands.state === 'asked'" v-say class="notice" data-test="asked">
      <strong>No clear answer from the carrier yet.</strong> It may have booked the parcel or not. Hummock
      asks again automatically, and books the parcel only once. You need not wait here.
    </p>
    <p v-else-if="stands.state === 'cancelling'" v-say class="notice">
      It is being cancelled; the carrier has not answered yet.
    </p>
    <template v-else>
      <p class="number figure" data-test="tracking">{{ stands.tracking }}</p>
      <p v-say>
        Booked with {{ best?.carrier ?? stands.service }} {{ best?.service }} for {{ weekday(stands.on) }}
        {{ dayAndYear(stands.on)
        }}<template v-if="stands.total">, <SumOf of="carrier_says" :sum="stands.total" /></template>.
      </p>
      <p v-if="stands.differs && stands.total && stands.by_tariff" class="mind" data-test="differs">
        The carrier takes <SumOf of="carrier_says" :sum="stands.total" />; by its tariff it is
        <SumOf of="quoted" :sum="stands.by_tariff" />. Cancel it, or ask the carrier before it is fetched.
      </p>
    </template>
    <p v-if="stands.says" class="mind">The carrier says: {{ stands.says }}.</p>
    <p v-if="other" class="mind">You chose another service. Cancel this booking to book the other.</p>
    <BButton
      v-if="!left && !leaving.held && stands.state !== 'cancelling'"
      variant="outline-secondary"
      class="no-print"
      :disabled="busy"
      @click="emit('cancel')"
    >
      Cancel the booking
    </BButton>
  </template>
  <template v-else-if="!best">
    <p class="soft">
      Choose a service that takes it first.
      <RouterLink :to="{ name: 'price', params: { id } }">All prices</RouterLink>
    </p>
  </template>
  <template v-else-if="!left">
    <p>
      {{ best.carrier }} {{ best.service }}, <SumOf of="quoted" :sum="best.total" />,
      {{ fetched ? 'fetched here' : 'taken to the counter' }}.
    </p>
    <CounterFields v-if="leaving.reach === 'none'" :leaving="leaving" />
    <template v-else-if="leaving.bookable">
      <fieldset class="days">
        <legend>{{ fetched ? 'Fetched on' : 'Taken there on' }}</legend>
        <BFormRadio v-for="day in days" :key="day.on" v-model="on" name="leaves-on" :value="day.on">
          {{ said(day) }}
        </BFormRadio>
      </fieldset>
      <p v-if="cutOff" class="soft">
        Parcels booked by {{ cutOff.slice(0, 5) }} are collected on the same day.
      </p>
      <p v-if="slots && !slots.by_carrier" class="soft" data-test="days-of-tariff">
        The carrier’s days are unavailable. These are from its tariff.
      </p>
      <BButton
        variant="outline-secondary"
        class="no-print"
        :disabled="busy || !on || leaving.gaps.length > 0"
        @click="emit('book')"
      >
        {{ busy ? 'Asking the carrier…' : `Book with ${best.carrier}` }}
      </BButton>
    </template>
  </template>
  <p v-if="booking?.state === 'refused'" v-say class="stop" data-test="refused">
    The carrier does not take it: {{ booking.says }}.
  </p>
  <p v-if="booking?.state === 'cancelled'" class="soft">An earlier booking was cancelled.</p>
  <p v-if="trouble" v-say class="stop" data-test="trouble">{{ trouble }}.</p>
  <DraftField
    v-if="leaving.reach !== 'none' && stands?.state !== 'booked'"
    path="sending.tracking"
    hint="if it was booked elsewhere"
  />
</template>

<style scoped>
.number {
  margin: 0;
  font-size: var(--type-title);
  font-weight: 600;
  user-select: all;
}
p {
  margin: 0 0 8px;
}
.days {
  margin: 0 0 8px;
  padding: 0;
  border: 0;
}
legend {
  font-size: var(--type-text);
  color: var(--peat-soft);
}
.mind {
  color: var(--amber-moss);
  font-weight: 600;
}
.stop {
  color: var(--rowan);
  font-weight: 600;
}
</style>
