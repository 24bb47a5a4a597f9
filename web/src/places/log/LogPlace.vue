<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, useTemplateRef } from 'vue';
import { useRouter } from 'vue-router';

import { answer, api } from '@/api/client';
import { useKeys } from '@/keys/useKeys';
import { vSay } from '@/said/say';
import { beginShipment } from '@/shipment/begun';
import { grouped } from '@/units/show';

import EmptyPlace from '@/parts/EmptyPlace.vue';

import LogFilters from './LogFilters.vue';
import LogTable from './LogTable.vue';
import ReckoningPanel from './ReckoningPanel.vue';
import { PAGE, useLog } from './useLog';

/** Every parcel that left: looked for, and reckoned up. */
const log = useLog();
const { sought, skip, page, reckoning, table } = log;
const router = useRouter();
const field = useTemplateRef<HTMLInputElement>('search');
useKeys({ '/': () => field.value?.focus() });

const rows = computed(() => page.data.value?.rows ?? []);
const total = computed(() => page.data.value?.total);
const at = computed(() => Number(skip.value));
const filtered = computed(() => Object.values(sought).some((value) => value.value !== ''));
const go = (to: number) => {
  skip.value = String(Math.max(0, to));
};

const trouble = ref('');
/** Begins a shipment as an old one was sent. */
async function again(id: string): Promise<void> {
  trouble.value = '';
  try {
    const given = await answer(api.GET('/api/v1/shipments/{id}/again', { params: { path: { id } } }));
    await router.push({ name: 'short', params: { id: beginShipment(given.inputs) } });
  } catch (error) {
    trouble.value = `The parcel wasn’t created: ${error instanceof Error ? error.message : 'something went wrong in the page'}.`;
  }
}
</script>

<template>
  <div class="page">
    <div class="heading-row">
      <h1>Log</h1>
      <label class="search no-print">
        <span class="visually-hidden">Search title, buyer or town</span>
        <input
          ref="search"
          v-model="sought.search.value"
          type="search"
          maxlength="120"
          class="form-control"
          placeholder="Search title, buyer, town"
        />
      </label>
      <a :href="table('csv')" class="btn no-print">As CSV</a>
      <a :href="table('json')" class="btn no-print">As JSON</a>
    </div>
    <LogFilters :log="log" :filtered="filtered" />
    <p v-if="trouble" v-say class="notice">{{ trouble }}</p>
    <p v-if="page.away.value" v-say class="soft">The studio’s data can’t be reached. Trying again.</p>
    <p v-else-if="total === undefined" class="soft">Opening the log</p>
    <p v-else-if="total === 0 && filtered" data-test="nothing">No entries match.</p>
    <EmptyPlace
      v-else-if="total === 0"
      drawing="log"
      says="Nothing has left yet. Parcels appear here once they are handed over."
      data-test="nothing"
    >
      <RouterLink to="/" class="btn btn-primary">To the bench</RouterLink>
    </EmptyPlace>
    <template v-else>
      <ReckoningPanel v-if="reckoning.data.value" :told="reckoning.data.value" :filtered="filtered" />
      <h2 class="all">{{ grouped(total) }} {{ total === 1 ? 'parcel' : 'parcels' }}</h2>
      <LogTable :rows="rows" @again="again" />
      <p v-if="total > PAGE" class="pages no-print">
        <BButton :disabled="at === 0" @click="go(at - PAGE)">Before</BButton>
        <span class="soft figure"
          >{{ at + 1 }} to {{ Math.min(at + PAGE, total) }} of {{ grouped(total) }}</span
        >
        <BButton :disabled="at + PAGE >= total" @click="go(at + PAGE)">After</BButton>
      </p>
    </template>
  </div>
</template>

<style scoped>
.page {
  max-width: 1240px;
}
h1 {
  margin: 4px 0;
  font-size: var(--type-title);
}
.heading-row {
  flex-wrap: wrap;
  align-items: center;
}
.search {
  flex: 1 1 220px;
  max-width: 340px;
  margin-left: auto;
}
.all {
  margin: 16px 0 4px;
  font-size: var(--type-lead);
}
.pages {
  display: flex;
  gap: 12px;
  align-items: center;
  margin: 12px 0;
}
</style>
