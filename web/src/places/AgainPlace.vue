<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import type { Kind } from '@/api/types';
import { counted } from '@/words/grammar';
import EmptyPlace from '@/parts/EmptyPlace.vue';
import { vSay } from '@/said/say';
import { beginShipment } from '@/shipment/begun';

/** A quick parcel: as the last like piece was sent, or from nothing. */
const router = useRouter();
const trouble = ref('');
const { data, away } = useRead({
  queryKey: ['kinds'],
  queryFn: ({ signal }) => answer(api.GET('/api/v1/kinds', { signal })),
});
const kinds = computed(() => data.value ?? []);

async function begin(kind?: Kind): Promise<void> {
  trouble.value = '';
  try {
    const path = kind && { id: kind.shipment };
    const given = path && (await answer(api.GET('/api/v1/shipments/{id}/again', { params: { path } })));
    const id = beginShipment(given?.inputs);
    await router.push({ name: 'short', params: { id } });
  } catch (error) {
    const why = error instanceof Error ? error.message : 'something went wrong in the page';
    trouble.value = `The parcel wasn’t created: ${why}.`;
  }
}
/** Only what was handed over was sent. */
function sentSoFar(parcels: number): string {
  if (parcels === 0) return 'not sent yet';
  return parcels === 1 ? 'sent once' : `sent ${counted(parcels, 'time')}`;
}
</script>

<template>
  <div class="page">
    <h1>A quick parcel</h1>
    <p class="soft">
      Choose a piece like this one. The new parcel copies its packing, cover and service. Buyer and address
      follow on the next page.
    </p>
    <p v-if="trouble" v-say class="trouble">{{ trouble }}</p>
    <p v-if="away" v-say class="trouble">The server is away; the list comes as soon as it is back.</p>
    <ul class="kinds">
      <li v-for="kind in kinds" :key="kind.shipment">
        <button type="button" @click="begin(kind)">
          <strong>{{ kind.says }}</strong>
          <span class="soft"> {{ sentSoFar(kind.count) }}, last “{{ kind.title || 'Untitled' }}” </span>
        </button>
      </li>
    </ul>
    <EmptyPlace v-if="data && kinds.length === 0" drawing="bench" says="No measured piece to copy yet.">
      <BButton variant="primary" @click="begin()">Measure the first</BButton>
    </EmptyPlace>
    <BButton v-else variant="outline-secondary" @click="begin()">None of these</BButton>
  </div>
</template>

<style scoped>
.kinds {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(300px, 100%), 1fr));
  gap: 12px;
  margin: 0 0 16px;
  padding: 0;
  list-style: none;
}
.kinds button {
  display: grid;
  gap: 4px;
  width: 100%;
  height: 100%;
  min-height: 76px;
  padding: 12px 16px;
  border: 1px solid var(--sedge);
  border-radius: var(--corner);
  background: var(--paper);
  text-align: left;
}
.kinds button:hover {
  border-color: var(--peat);
}
.kinds strong {
  display: block;
}
.kinds strong::first-letter {
  text-transform: uppercase;
}
.trouble {
  padding: 8px 12px;
  border-left: 4px solid var(--amber-moss);
  background: var(--paper);
}
</style>
