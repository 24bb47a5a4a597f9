<script setup lang="ts">
import { useQueries } from '@tanstack/vue-query';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import { useRoute } from 'vue-router';

import { answer, api } from '@/api/client';
import { read } from '@/api/queries';
import EmptyPlace from '@/parts/EmptyPlace.vue';
import { useUnits } from '@/units/useUnits';

/** A tag for each parcel of a day, to be cut apart: once wrapped, all look alike. */
const route = useRoute();
const { onPaper } = useUnits();
const print = () => window.print();

const ids = computed(() =>
  (typeof route.query.of === 'string' ? route.query.of.split(',') : []).filter(Boolean),
);
const shipments = useQueries(
  {
    queries: computed(() =>
      ids.value.map((id) => ({
        queryKey: ['shipment', id],
        queryFn: ({ signal }: { signal: AbortSignal }) =>
          answer(api.GET('/api/v1/shipments/{id}', { params: { path: { id } }, signal })),
      })),
    ),
  },
  read,
);
const tags = computed(() => shipments.value.flatMap(({ data }) => (data ? [data] : [])));
</script>

<template>
  <div class="page">
    <div v-if="ids.length > 0" class="heading-row no-print">
      <RouterLink to="/" class="btn">Back to the bench</RouterLink>
      <BButton variant="primary" :disabled="tags.length < ids.length" @click="print">Print the tags</BButton>
    </div>
    <h1 class="no-print">Tags for wrapped pieces</h1>
    <EmptyPlace
      v-if="ids.length === 0"
      drawing="carriers"
      says="Once wrapped, all pieces look alike: a tag says which is which. Tick the pieces on the bench and press Tags in the bar below."
    >
      <RouterLink to="/" class="btn btn-primary">Choose pieces</RouterLink>
    </EmptyPlace>
    <p v-else class="soft no-print">Cut the tags apart. Stick each on its piece before you wrap the next.</p>
    <ul>
      <li v-for="({ id, inputs, summary }, at) in tags" :key="id">
        <span class="up" aria-hidden="true">↑ top</span>
        <span class="number figure">{{ at + 1 }}</span>
        <strong>{{ inputs.title || 'Untitled' }}</strong>
        <span>{{ [inputs.buyer?.name, inputs.buyer?.town].filter(Boolean).join(', ') || 'nobody yet' }}</span>
        <span v-if="summary" class="figure">
          box {{ onPaper.size(summary.outside.across_mm, summary.outside.up_mm, summary.outside.through_mm) }}
        </span>
        <span class="face">This side is the ☐ face ☐ back</span>
      </li>
    </ul>
  </div>
</template>

<style scoped>
ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(320px, 100%), 1fr));
  gap: 0;
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  position: relative;
  display: grid;
  gap: 4px;
  padding: 16px 16px 16px 72px;
  border: 1px dashed var(--peat-soft);
  break-inside: avoid;
}
.number {
  position: absolute;
  top: 12px;
  left: 16px;
  font-size: var(--type-huge);
  font-weight: 700;
}
strong {
  font-size: var(--type-title);
  overflow-wrap: anywhere;
}
.up {
  justify-self: end;
}
</style>
