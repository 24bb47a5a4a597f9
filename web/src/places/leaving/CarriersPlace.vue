<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';

import { answer, api } from '@/api/client';
import { read, useRead } from '@/api/queries';
import type { BookingApart, WithCarriers } from '@/api/types';
import { counted } from '@/words/grammar';
import EmptyPlace from '@/parts/EmptyPlace.vue';
import StandInNote from '@/parts/StandInNote.vue';
import { vSay } from '@/said/say';
import { dayAndYear, money } from '@/units/show';

/** The studio's bookings laid beside those that its carriers hold, each settled by one press. */
const queryKey = ['with-carriers'];
const { data, away, reload } = useRead<WithCarriers>({
  queryKey,
  queryFn: ({ signal }) => answer(api.GET('/api/v1/leaving/carriers', { signal })),
});

const groups: Record<BookingApart['what'], { heading: string; says: string; press: string }> = {
  here_only: {
    heading: 'Booked here, missing at the carrier',
    says: 'These won’t be collected. Delete the booking here, then book again.',
    press: 'Delete it here',
  },
  there_only: {
    heading: 'Booked at the carrier, missing here',
    says: 'The carrier may collect these, or charge for them.',
    press: 'Cancel it with the carrier',
  },
  unanswered: {
    heading: 'Not answered yet',
    says: 'Hummock asks the carrier again until it says yes or no.',
    press: 'Ask again now',
  },
};
const parts = computed(() =>
  Object.entries(groups)
    .map(([what, group]) => ({ ...group, rows: data.value?.apart.filter((row) => row.what === what) ?? [] }))
    .filter(({ rows }) => rows.length > 0),
);
const named = (list: WithCarriers['carriers'][number]['list']) =>
  (data.value?.carriers ?? [])
    .filter((carrier) => carrier.list === list)
    .map(({ carrier }) => carrier)
    .join(', ');

const busy = ref('');
const trouble = ref('');
async function press(what: string, ask: () => Promise<WithCarriers>): Promise<void> {
  busy.value = what;
  trouble.value = '';
  try {
    read.setQueryData(queryKey, await ask());
  } catch (error) {
    trouble.value = error instanceof Error ? error.message : 'something went wrong in the page';
    await reload();
  } finally {
    busy.value = '';
  }
}
const settle = ({ tariff, key }: BookingApart) =>
  press(key, () => answer(api.POST('/api/v1/leaving/carriers/settle', { body: { tariff, key } })));
const speak = () => press('speak', () => answer(api.POST('/api/v1/leaving/carriers/speak')));
</script>

<template>
  <div class="page">
    <div class="heading-row">
      <h1>Carrier bookings</h1>
      <RouterLink to="/leaving" class="btn no-print">Outgoing</RouterLink>
      <BButton
        v-if="data && !data.held"
        variant="outline-secondary"
        class="no-print"
        :disabled="busy !== ''"
        @click="reload()"
      >
        Ask them again
      </BButton>
    </div>
    <StandInNote
      v-if="data && data.carriers.length > 0"
      does="holds these bookings, and nothing is really booked"
    />
    <p class="soft">Bookings from last week on, compared with the carriers’ own records.</p>
    <p v-if="away" v-say class="soft">The studio’s data can’t be reached. Trying again.</p>
    <p v-if="trouble" v-say class="notice" data-test="trouble">Nothing was changed: {{ trouble }}.</p>
    <template v-if="data">
      <section v-if="data.held" class="panel asks" aria-label="Which studio books" data-test="held">
        <h2>Does this studio book with carriers?</h2>
        <p>
          It was read in from a backup. If the original studio still runs, both would book and cancel the same
          parcels. Nothing is asked of any carrier until you say so.
        </p>
        <p class="soft">Say yes only if the other one is stopped for good.</p>
        <BButton variant="primary" :disabled="busy !== ''" @click="speak">
          Yes, the other one is stopped
        </BButton>
      </section>
      <template v-else>
        <EmptyPlace
          v-if="data.carriers.length === 0"
          drawing="carriers"
          says="No carrier is connected. Parcels leave all the same, with a tracking number that you type or with none."
        >
          <RouterLink to="/carriers" class="btn btn-primary">Connect a carrier</RouterLink>
        </EmptyPlace>
        <p v-else-if="parts.length === 0" v-say class="good" data-test="agree">
          {{
            data.agree === 0
              ? 'Nothing is booked.'
              : `Everything agrees: ${counted(data.agree, 'booking')}, the same here and with the carriers.`
          }}
        </p>
        <p v-else class="soft" data-test="agree">
          Apart from these, {{ counted(data.agree, 'booking') }} {{ data.agree === 1 ? 'is' : 'are' }} agree.
        </p>
        <p v-if="named('silent')" v-say class="mind" data-test="silent">
          Not answering just now: {{ named('silent') }}. Their bookings are shown as they are here.
        </p>
        <p v-if="named('no_list')" class="soft">
          No list of bookings is given by: {{ named('no_list') }}. Theirs are shown as they are here.
        </p>
      </template>
      <section v-for="part in parts" :key="part.heading" class="panel" :aria-label="part.heading">
        <h2>{{ part.heading }}</h2>
        <p class="soft">{{ part.says }}</p>
        <ul>
          <li v-for="row in part.rows" :key="row.key" data-test="apart">
            <RouterLink
              v-if="row.shipment"
              :to="{ name: 'send', params: { id: row.shipment } }"
              class="title"
            >
              {{ row.title }}
            </RouterLink>
            <span v-else class="title">{{ row.title || 'A parcel that is not kept here' }}</span>
            <span class="figure">{{ row.tracking ?? '' }}</span>
            <span
              >{{ row.carrier }}<template v-if="row.on">, {{ dayAndYear(row.on) }}</template></span
            >
            <span class="figure">{{ row.total ? money(row.total) : '' }}</span>
            <BButton
              variant="outline-secondary"
              class="no-print"
              :disabled="busy !== '' || data.held"
              @click="settle(row)"
            >
              {{ busy === row.key ? 'Asking the carrier…' : part.press }}
            </BButton>
          </li>
        </ul>
      </section>
    </template>
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
  margin: 0 0 4px;
  font-size: var(--type-lead);
}
.heading-row {
  flex-wrap: wrap;
  justify-content: flex-start;
  gap: 8px 24px;
  align-items: center;
}
.panel {
  margin-top: 16px;
  padding: 12px 16px;
}
.asks {
  max-width: 640px;
  border-left: 4px solid var(--heather);
}
p {
  margin: 0 0 8px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 1fr) minmax(0, 1.4fr) minmax(0, 0.8fr) auto;
  gap: 4px 16px;
  align-items: center;
  padding: 8px 0;
  border-top: 1px solid var(--sedge);
}
.title {
  font-weight: 600;
  overflow-wrap: anywhere;
}
@include at.tablet {
  li {
    grid-template-columns: 1fr;
  }
  li .btn {
    justify-self: start;
    min-height: 44px;
  }
}
</style>
