<script setup lang="ts">
import PlusIcon from '~icons/tabler/plus';

import { useEventListener } from '@vueuse/core';
import { computed, onMounted, ref, shallowRef, useTemplateRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';

import { answer, api } from '@/api/client';
import type { BenchRow } from '@/api/types';
import { useStudio } from '@/api/useStudio';
import { useKeys } from '@/keys/useKeys';
import { daysBetween } from '@/units/show';

import BenchLine from './BenchLine.vue';

const DAYS_AHEAD = 7;

const route = useRoute();
const router = useRouter();
const { studio } = useStudio();
const rows = shallowRef<BenchRow[]>();
const away = ref(false);
const field = useTemplateRef<HTMLInputElement>('search');

/** What is looked for stands in the address, so that back leads to the same list. */
const sought = computed({
  get: () => String(route.query.q ?? ''),
  set: (q: string) => void router.replace({ query: q ? { q } : {} }),
});

async function load(): Promise<void> {
  try {
    rows.value = await answer(api.GET('/api/v1/shipments'));
    away.value = false;
  } catch {
    away.value = true;
    setTimeout(() => void load(), 2500);
  }
}

const found = computed(() => {
  const words = sought.value.toLowerCase().split(/\s+/).filter(Boolean);
  return (rows.value ?? []).filter(({ inputs }) => {
    const text = [inputs.title, inputs.buyer?.name, inputs.buyer?.town].join(' ').toLowerCase();
    return words.every((word) => text.includes(word));
  });
});

const groups = computed(() => {
  const today = studio.value?.today;
  const soon = (row: BenchRow) =>
    Boolean(today && row.inputs.promised && daysBetween(today, row.inputs.promised) <= DAYS_AHEAD);
  return [
    { name: 'promised within a week', rows: found.value.filter(soon) },
    { name: 'later', rows: found.value.filter((row) => !soon(row)) },
  ].filter((group) => group.rows.length > 0);
});

onMounted(load);
useEventListener(window, 'focus', () => void load());
useKeys({ '/': () => field.value?.focus() });
</script>

<template>
  <div class="page">
    <div class="heading-row">
      <h1>On the bench</h1>
      <label class="search no-print">
        <span class="visually-hidden">Search title, buyer or town</span>
        <input
          ref="search"
          v-model="sought"
          type="search"
          class="form-control"
          placeholder="Search title, buyer, town"
        />
        <kbd aria-hidden="true">/</kbd>
      </label>
      <RouterLink to="/sums" class="btn no-print">Quick sums</RouterLink>
      <RouterLink to="/measuring-sheet" class="btn no-print">Measuring sheet</RouterLink>
      <RouterLink to="/shipments/new" class="btn btn-primary no-print">
        <PlusIcon aria-hidden="true" /> New shipment
      </RouterLink>
    </div>
    <p v-if="away" class="soft" role="alert">The studio’s data can’t be reached. Trying again.</p>
    <p v-else-if="!rows" class="soft">Opening the bench</p>
    <div v-else-if="rows.length === 0" class="empty panel">
      <h2>The bench is clear</h2>
      <p>Begin with what the tape measure says: width, height, depth.</p>
      <RouterLink to="/shipments/new" class="btn btn-primary">New shipment</RouterLink>
    </div>
    <p v-else-if="found.length === 0">Nothing on the bench is called “{{ sought }}”.</p>
    <section v-for="group in groups" :key="group.name">
      <h2 class="soft">{{ group.name }}</h2>
      <ul>
        <BenchLine v-for="row in group.rows" :key="row.id" :row="row" />
      </ul>
    </section>
  </div>
</template>

<style scoped>
.page {
  max-width: 1240px;
}
.heading-row {
  align-items: center;
}
h1 {
  margin: 4px 0;
  font-size: 1.75rem;
}
.search {
  position: relative;
  flex: 1 1 220px;
  max-width: 340px;
  margin-left: auto;
}
.search kbd {
  position: absolute;
  top: 9px;
  right: 9px;
}
h2 {
  margin: 12px 0 4px;
  font-size: 1rem;
}
ul {
  margin: 0;
  padding: 0;
  border-top: 1px solid var(--sedge);
  list-style: none;
}
.empty {
  padding: 32px;
}
.empty h2 {
  font-size: 1.25rem;
}
@media (max-width: 640px) {
  .search {
    max-width: none;
    margin-left: 0;
  }
}
</style>
