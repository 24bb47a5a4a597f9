<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import { capital, count, counted } from '@/words/grammar';
import PaperLink from '@/parts/PaperLink.vue';
import { dayOf } from '@/stops/pack/day';

import type { Chosen } from './useChosen';

/** What can be done with the shipments that are ticked; it stays in view. */
const { busy } = defineProps<{ busy: boolean }>();
const chosen = defineModel<Chosen[]>({ required: true });
const emit = defineEmits<{ cut: []; drop: [] }>();

/** Those that can have a label: a carrier's number stands on it. */
const labelled = computed(() => chosen.value.filter(({ numbered }) => numbered));
const labels = computed(() => `/api/v1/leaving/labels?of=${labelled.value.map(({ id }) => id).join(',')}`);
const ids = computed(() => chosen.value.map(({ id }) => id));
const titles = computed(() => chosen.value.map(({ title }) => title || 'Untitled').join(', '));
</script>

<template>
  <aside class="chosen no-print" aria-label="Selection" data-test="together">
    <p>
      <strong>{{ capital(counted(chosen.length, 'shipment')) }} chosen</strong>
      <span class="soft titles">{{ titles }}</span>
    </p>
    <div class="acts">
      <BButton @click="chosen = []">Let go</BButton>
      <BButton @click="emit('drop')">Delete</BButton>
      <PaperLink v-if="labelled.length > 0" :href="labels" class="btn" data-test="labels">{{
        labelled.length < chosen.length ? `Labels of ${count(labelled.length)}` : 'Labels'
      }}</PaperLink>
      <span v-else class="soft waits">No label before it is booked</span>
      <RouterLink :to="`/tools/tags?of=${ids.join(',')}`" class="btn">Tags</RouterLink>
      <PaperLink
        :href="`/api/v1/leaving/materials-list?of=${ids.join(',')}`"
        class="btn"
        data-test="materials"
        >Materials</PaperLink
      >
      <BButton :disabled="busy" @click="emit('cut')">Cut together</BButton>
      <RouterLink :to="dayOf(ids)" class="btn btn-primary">{{
        ids.length === 1 ? 'Pack it' : 'Pack one after the other'
      }}</RouterLink>
    </div>
  </aside>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.chosen {
  position: fixed;
  right: 0;
  bottom: 0;
  left: 0;
  z-index: 20;
  display: flex;
  flex-wrap: wrap;
  gap: 8px 20px;
  align-items: center;
  justify-content: space-between;
  min-height: 72px;
  padding: 8px 20px;
  border-top: 2px solid var(--peat);
  background: var(--paper);
}
p {
  margin: 0;
}
.titles {
  margin-left: 8px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.waits {
  font-size: var(--type-small);
}
@include at.phone {
  .chosen {
    padding: 8px 12px;
  }
  .titles {
    display: none;
  }
  .acts :deep(.btn) {
    padding-inline: 10px;
  }
}
</style>
