<script setup lang="ts">
import { computed } from 'vue';

import type { CollectionSheet } from '@/api/types';
import TextField from '@/parts/TextField.vue';
import TickField from '@/parts/TickField.vue';
import TickList from '@/parts/TickList.vue';

import { DAYS } from './choices';
import { useWrong } from './wrong';

/** On which days parcels are fetched, and until when they are booked for the same day. */
const { place, label } = defineProps<{ place: string; label: string }>();
const collection = defineModel<CollectionSheet | null | undefined>({ required: true });
const wrong = useWrong();

const has = computed({
  get: () => collection.value != null,
  set: (now) => {
    collection.value = now ? { days: ['mon', 'tue', 'wed', 'thu', 'fri'], cut_off: '14:00' } : null;
  },
});
</script>

<template>
  <div class="collection">
    <TickField v-model="has" :label="label" :name="`${place}/has`" />
    <template v-if="collection">
      <TickList v-model="collection.days" label="on" none="which days?" :choices="DAYS" />
      <TextField
        v-model="collection.cut_off"
        label="Booked until"
        :name="`${place}/cut_off`"
        placeholder="14:30"
        :error="wrong(`${place}/cut_off`)"
      />
      <p v-if="wrong(`${place}/days`)" class="error">{{ wrong(`${place}/days`) }}</p>
    </template>
  </div>
</template>

<style scoped>
.collection {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
}
.error {
  margin: 0;
  color: var(--rowan);
  font-weight: 600;
}
</style>
