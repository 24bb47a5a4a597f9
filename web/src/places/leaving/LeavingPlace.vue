<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import type { Collection } from '@/api/types';
import { useStudio } from '@/api/useStudio';
import { counted } from '@/words/grammar';
import PaperLink from '@/parts/PaperLink.vue';
import EmptyPlace from '@/parts/EmptyPlace.vue';
import { vSay } from '@/said/say';
import { dayAndYear, kilograms, weekday } from '@/units/show';

/** Outgoing: what leaves on a day, carrier by carrier: who fetches what, the list to sign, and handing all of it over. */
const { studio } = useStudio();
const route = useRoute();
const router = useRouter();

const on = computed({
  get: () => (route.query.on as string | undefined) ?? studio.value?.today ?? '',
  set: (day: string) => void router.replace({ query: { on: day } }),
});
const isDay = computed(() => /^\d{4}-\d{2}-\d{2}$/.test(on.value));
const {
  data: collections,
  away,
  reload,
} = useRead<Collection[]>({
  queryKey: computed(() => ['leaving-on', on.value]),
  queryFn: ({ signal }) =>
    answer(api.GET('/api/v1/leaving', { params: { query: { on: on.value } }, signal })),
  enabled: isDay,
});

const list = (tariff: string) =>
  `/api/v1/leaving/hand-over-list?on=${on.value}&tariff=${encodeURIComponent(tariff)}`;
const still = (collection: Collection) => collection.parcels.filter(({ handed_over: day }) => !day);

const busy = ref(false);
const trouble = ref('');
/** Says of each parcel that the carrier took it; what is refused is named, and the others go on. */
async function handOver(collection: Collection): Promise<void> {
  busy.value = true;
  trouble.value = '';
  const kept: string[] = [];
  for (const parcel of still(collection)) {
    const body = {
      version: parcel.version,
      edit: crypto.randomUUID(),
      change: { sending: { handed_over: studio.value?.today ?? on.value } } as never,
    };
    const params = { path: { id: parcel.shipment } };
    await answer(api.PATCH('/api/v1/shipments/{id}', { params, body })).catch((error: unknown) => {
      const why = error instanceof Error ? error.message : 'something went wrong in the page';
      kept.push(`“${parcel.title}”: ${why}`);
    });
  }
  if (kept.length > 0) trouble.value = `Not handed over: ${kept.join('; ')}.`;
  await reload();
  busy.value = false;
}
</script>

<template>
  <div class="page">
    <div class="heading-row">
      <h1>Outgoing</h1>
      <label class="day no-print">
        <span class="soft">on</span>
        <input v-model="on" type="date" name="on" class="form-control" />
      </label>
      <span v-if="isDay" class="soft figure">{{ weekday(on) }} {{ dayAndYear(on) }}</span>
      <RouterLink :to="{ name: 'with-carriers' }" class="btn no-print">Carrier bookings</RouterLink>
    </div>
    <p v-if="trouble" v-say class="notice">{{ trouble }}</p>
    <p v-if="away" v-say class="soft">The studio’s data can’t be reached. Trying again.</p>
    <EmptyPlace
      v-else-if="collections?.length === 0"
      drawing="carriers"
      says="Nothing leaves on that day. Book or hand over parcels at Send."
      data-test="nothing"
    >
      <RouterLink to="/" class="btn btn-primary">To the bench</RouterLink>
    </EmptyPlace>
    <section
      v-for="collection in collections"
      :key="collection.tariff"
      class="panel"
      :aria-label="collection.carrier"
    >
      <div class="heading-row">
        <h2>{{ collection.carrier }}</h2>
        <span class="soft figure">
          {{ counted(collection.parcels.length, 'parcel') }}, {{ kilograms(collection.mass_g) }}
        </span>
        <PaperLink :href="list(collection.tariff)" class="btn no-print">List to sign</PaperLink>
        <BButton
          v-if="still(collection).length > 0"
          variant="primary"
          class="no-print"
          :disabled="busy"
          @click="handOver(collection)"
        >
          {{
            still(collection).length === 1
              ? 'It is handed over'
              : `All ${still(collection).length} are handed over`
          }}
        </BButton>
      </div>
      <ul>
        <li v-for="parcel in collection.parcels" :key="parcel.shipment">
          <RouterLink :to="{ name: 'send', params: { id: parcel.shipment } }" class="title">{{
            parcel.title
          }}</RouterLink>
          <span class="figure number">{{ parcel.tracking || 'no number' }}</span>
          <span>{{ parcel.service }}, to {{ parcel.to }}</span>
          <span class="figure">{{ kilograms(parcel.mass_g) }}</span>
          <span class="soft">{{
            parcel.handed_over
              ? `handed over ${dayAndYear(parcel.handed_over)}`
              : `still here${parcel.booked ? '' : ', not booked from here'}`
          }}</span>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.page {
  max-width: 1000px;
}
h1 {
  margin: 4px 0;
  font-size: var(--type-title);
}
h2 {
  margin: 0;
  font-size: var(--type-lead);
}
.heading-row {
  flex-wrap: wrap;
  justify-content: flex-start;
  gap: 8px 24px;
  align-items: center;
}
.heading-row .btn-primary {
  margin-left: auto;
}
.day {
  display: flex;
  gap: 8px;
  align-items: center;
}
.panel {
  margin-top: 16px;
  padding: 12px 16px 16px;
}
ul {
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1.3fr) 110px minmax(0, 2fr) 80px minmax(0, 1fr);
  gap: 4px 16px;
  align-items: center;
  min-height: 48px;
  padding: 4px 0;
  border-top: 1px solid var(--sedge);
  overflow-wrap: anywhere;
}
.title {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  font-weight: 600;
}
.number {
  font-weight: 600;
}
@include at.phone {
  li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
}
</style>
