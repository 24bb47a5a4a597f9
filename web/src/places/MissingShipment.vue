<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { useRoute } from 'vue-router';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import { useAnotherStudio } from '@/places/studio/useStudios';
import { vSay } from '@/said/say';

/** A shipment that the studio that is shown does not hold: another studio of this program may. */
const { id } = defineProps<{ id: string }>();
const { data: holder } = useRead({
  queryKey: ['studio-of', id],
  queryFn: ({ signal }) =>
    answer(api.GET('/api/v1/shipments/{id}/studio', { params: { path: { id } }, signal })),
});
const route = useRoute();
const { show, trouble } = useAnotherStudio();
const called = (studio: { name: string; demo: boolean }) =>
  studio.demo ? `the demo, ${studio.name}` : studio.name || 'a studio that isn’t set up yet';
</script>

<template>
  <div v-if="holder && !holder.shown" data-test="elsewhere">
    <h1>This shipment is in another studio</h1>
    <p>It belongs to {{ called(holder) }}.</p>
    <p class="ways">
      <BButton variant="primary" @click="show(holder.id, route.fullPath)">Open that studio</BButton>
      <RouterLink to="/" class="btn btn-outline-secondary">Back to the bench</RouterLink>
    </p>
    <p v-if="trouble" v-say class="stop">{{ trouble }}.</p>
  </div>
  <div v-else>
    <h1>There is no such shipment</h1>
    <p>It may never have been saved. <RouterLink to="/">Back to the bench</RouterLink></p>
  </div>
</template>

<style scoped>
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
}
.stop {
  color: var(--rowan);
}
</style>
