<script setup lang="ts">
import PlusIcon from '~icons/tabler/plus';

import { useDebounceFn, useEventListener } from '@vueuse/core';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect';
import { computed, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';

import { answer, api } from '@/api/client';
import type { BenchPage, BenchRow, Place, SortName } from '@/api/types';
import { useStudio } from '@/api/useStudio';
import { useKeys } from '@/keys/useKeys';
import { useOutbox } from '@/shipment/useOutbox';
import { daysBetween } from '@/units/show';

import BenchLine from './BenchLine.vue';

const DAYS_AHEAD = 7;
const ASK_AFTER_MS = 120;
const TRY_AGAIN_AFTER_MS = 2500;
const PLACES: { value: Place; text: string }[] = [
  { value: 'bench', text: 'On the bench' },
  { value: 'archive', text: 'Archive' },
  { value: 'bin', text: 'Deleted' },
];
const MOVED: Record<Place, string> = {
  bench: 'is back on the bench',
  archive: 'is in the archive, with the plan that it has',
  bin: 'is deleted',
};
const SORTS: { value: SortName; text: string }[] = [
  { value: 'promised', text: 'promised first' },
  { value: 'newest', text: 'newest first' },
  { value: 'title', text: 'by title' },
  { value: 'buyer', text: 'by buyer' },
];

const route = useRoute();
const router = useRouter();
const { studio } = useStudio();
const page = shallowRef<BenchPage>();
const away = ref(false);
const trouble = ref('');
const moved = shallowRef<{ row: BenchRow; from: Place; to: Place }>();
const field = useTemplateRef<HTMLInputElement>('search');

/** What is looked for stands in the address, so that back leads to the same list. */
function inAddress<Value extends string>(key: string, otherwise: Value) {
  return computed({
    get: () => (route.query[key] as Value | undefined) ?? otherwise,
    set: (value: Value) => {
      const query = { ...route.query, [key]: value };
      if (value === otherwise) Reflect.deleteProperty(query, key);
      void router.replace({ query });
    },
  });
}
const sought = inAddress('q', '');
const place = inAddress<Place>('in', 'bench');
const sort = inAddress<SortName>('by', 'promised');

let asked: AbortController | undefined;

async function load(more = false): Promise<void> {
  asked?.abort();
  const mine = (asked = new AbortController());
  const shown = page.value?.rows ?? [];
  // As many as are shown, so that looking again does not fold the list up.
  const most = more ? undefined : Math.min(200, Math.max(50, shown.length));
  const after = more ? (page.value?.next ?? undefined) : undefined;
  const query = { place: place.value, search: sought.value, sort: sort.value, after, most };
  try {
    const next = await answer(api.GET('/api/v1/shipments', { params: { query }, signal: mine.signal }));
    page.value = more ? { ...next, rows: [...shown, ...next.rows] } : next;
    away.value = false;
  } catch {
    if (mine.signal.aborted) return;
    away.value = true;
    setTimeout(() => void load(), TRY_AGAIN_AFTER_MS);
  }
}

async function put(row: BenchRow, to: Place, from: Place = place.value): Promise<void> {
  trouble.value = '';
  try {
    const path = { id: row.id };
    await answer(api.PUT('/api/v1/shipments/{id}/place', { params: { path }, body: { place: to } }));
    moved.value = { row, from, to };
  } catch (error) {
    const why = error instanceof Error ? error.message : 'something went wrong in the page';
    trouble.value = `“${row.inputs.title || 'Untitled'}” stays where it is: ${why}.`;
  }
  await load();
}

async function putBack(): Promise<void> {
  const last = moved.value;
  if (!last) return;
  await put(last.row, last.from, last.to);
  // What could not be moved back can be tried again.
  if (!trouble.value) moved.value = undefined;
}

const groups = computed(() => {
  const rows = page.value?.rows ?? [];
  if (place.value !== 'bench' || sort.value !== 'promised') return [{ name: '', rows }];
  const today = studio.value?.today;
  const soon = (row: BenchRow) =>
    Boolean(today && row.inputs.promised && daysBetween(today, row.inputs.promised) <= DAYS_AHEAD);
  return [
    { name: 'promised within a week', rows: rows.filter(soon) },
    { name: 'later', rows: rows.filter((row) => !soon(row)) },
  ].filter((group) => group.rows.length > 0);
});
const clear = computed(
  () => outbox.value.length === 0 && page.value?.total === 0 && !sought.value && place.value === 'bench',
);

const loadSoon = useDebounceFn(() => load(), ASK_AFTER_MS);
watch([place, sort], () => void load());
watch(sought, () => void loadSoon());
void load();
const outbox = useOutbox(() => void load());
useEventListener(window, 'focus', () => void load());
useKeys({ '/': () => field.value?.focus() });
</script>

<template>
  <div class="page">
    <div class="heading-row">
      <h1>{{ PLACES.find(({ value }) => value === place)?.text ?? 'On the bench' }}</h1>
      <label class="search no-print">
        <span class="visually-hidden">Search title, buyer or town</span>
        <input
          ref="search"
          v-model="sought"
          type="search"
          maxlength="120"
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
    <div class="ways no-print">
      <label>
        Show
        <BFormSelect v-model="place" name="place" :options="PLACES" size="sm" />
      </label>
      <label>
        Sorted
        <BFormSelect v-model="sort" name="sort" :options="SORTS" size="sm" />
      </label>
    </div>
    <section v-if="outbox.length > 0" class="notice no-print" role="status" data-test="outbox">
      <h2>Not saved yet</h2>
      <ul>
        <li v-for="{ id, title, says } in outbox" :key="id">
          <RouterLink :to="`/shipments/${id}`">{{ title || 'Untitled' }}</RouterLink>, {{ says }}
        </li>
      </ul>
    </section>
    <p v-if="moved" class="notice moved no-print" role="status" data-test="moved">
      “{{ moved.row.inputs.title || 'Untitled' }}” {{ MOVED[moved.to] }}.
      <BButton size="sm" @click="putBack">Undo</BButton>
    </p>
    <p v-if="trouble" class="notice no-print" role="alert">{{ trouble }}</p>
    <p v-if="away" class="soft" role="alert">The studio’s data can’t be reached. Trying again.</p>
    <p v-else-if="!page" class="soft">Opening the bench</p>
    <div v-else-if="clear" class="empty panel">
      <h2>The bench is clear</h2>
      <p>Begin with what the tape measure says: width, height, depth.</p>
      <RouterLink to="/shipments/new" class="btn btn-primary">New shipment</RouterLink>
    </div>
    <p v-else-if="page.total === 0 && sought">Nothing here is called “{{ sought }}”.</p>
    <p v-else-if="page.total === 0 && outbox.length === 0">There is nothing here.</p>
    <section v-for="group in groups" :key="group.name">
      <h2 v-if="group.name" class="soft">{{ group.name }}</h2>
      <ul>
        <BenchLine
          v-for="row in group.rows"
          :key="row.id"
          :row="row"
          :place="place"
          @put="(to) => put(row, to)"
        />
      </ul>
    </section>
    <p v-if="page?.next" class="more no-print">
      <BButton @click="load(true)">Show more</BButton>
      <span class="soft">{{ page.rows.length }} of {{ page.total }}</span>
    </p>
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
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
}
.ways label {
  display: flex;
  align-items: center;
  gap: 8px;
  color: var(--peat-soft);
}
.ways select {
  width: auto;
}
.moved {
  margin: 8px 0;
}
.more {
  display: flex;
  align-items: center;
  gap: 12px;
  margin: 12px 0;
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
