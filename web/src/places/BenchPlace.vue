<script setup lang="ts">
import PlusIcon from '~icons/tabler/plus';

import { useInfiniteQuery } from '@tanstack/vue-query';
import { refDebounced } from '@vueuse/core';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect';
import { computed, ref, shallowRef, useTemplateRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';

import { answer, api, Unreachable } from '@/api/client';
import { read } from '@/api/queries';
import { signedOut } from '@/api/signedOut';
import type { BenchRow, Place, SortName, WorkGroup } from '@/api/types';
import { counted } from '@/words/grammar';
import { useRemembered } from '@/kept/remembered';
import { useKeys } from '@/keys/useKeys';
import { vSay } from '@/said/say';
import { useOutbox } from '@/shipment/useOutbox';

import BenchLine from './BenchLine.vue';
import ChosenBar from './ChosenBar.vue';
import { layOut } from './cutting/layOut';
import { useChosen } from './useChosen';

const ASK_AFTER_MS = 120;
const PLACES: { value: Place; text: string }[] = [
  { value: 'bench', text: 'On the bench' },
  { value: 'sent', text: 'Sent' },
  { value: 'archive', text: 'Archive' },
  { value: 'bin', text: 'Deleted' },
];
const MOVED: Record<Place, string> = {
  bench: 'is back where it was',
  sent: 'is back where it was',
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

const searched = refDebounced(sought, ASK_AFTER_MS);
const list = useInfiniteQuery(
  {
    queryKey: ['shipments', place, searched, sort],
    queryFn: ({ pageParam, signal }) => {
      const query = { place: place.value, search: searched.value, sort: sort.value, after: pageParam };
      return answer(api.GET('/api/v1/shipments', { params: { query }, signal }));
    },
    initialPageParam: undefined as string | undefined,
    getNextPageParam: ({ next }) => next ?? undefined,
    // What is found in one place is no picture of another.
    placeholderData: (before, of) => (of?.queryKey[1] === place.value ? before : undefined),
  },
  read,
);
/** The bench as it is opened, without a search. */
const plain = computed(() => place.value === 'bench' && sort.value === 'promised' && !searched.value);
const kept = useRemembered('bench', () => (plain.value ? list.data.value?.pages[0] : undefined));
/** What was read the last time stands there until there is an answer. */
const before = computed(() => (list.data.value || !plain.value ? undefined : kept.value));
const rows = computed(() => list.data.value?.pages.flatMap((page) => page.rows) ?? before.value?.rows ?? []);
const total = computed(() => list.data.value?.pages.at(-1)?.total);
const away = computed(() => !signedOut.value && list.failureReason.value instanceof Unreachable);
const load = () => list.refetch();

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

/** By what can be done now; within, in the order of the list. */
const GROUPS: readonly { group: WorkGroup; name: string }[] = [
  { group: 'pack', name: 'Wrap today' },
  { group: 'weigh', name: 'To weigh' },
  { group: 'hand_over', name: 'To hand over' },
  { group: 'settle', name: 'To settle' },
  { group: 'plan', name: 'To plan' },
  { group: 'paint', name: 'Waiting for paint' },
  { group: 'on_its_way', name: 'On its way' },
];
const groups = computed(() => {
  if (place.value !== 'bench' || sort.value !== 'promised') return [{ name: '', rows: rows.value }];
  return GROUPS.map(({ group, name }) => ({
    name,
    rows: rows.value.filter((row) => row.line.group === group),
  })).filter((group) => group.rows.length > 0);
});
const clear = computed(
  () => outbox.value.length === 0 && total.value === 0 && !sought.value && place.value === 'bench',
);

const chosen = useChosen();
/** The ticks of the rows, by what each is called. */
const ticked = computed({
  get: () => chosen.value.map(({ id }) => id),
  set: (ids: string[]) => {
    const titles = new Map(rows.value.map((row) => [row.id, row.inputs.title]));
    for (const { id, title } of chosen.value) if (!titles.has(id)) titles.set(id, title);
    chosen.value = ids.map((id) => ({ id, title: titles.get(id) ?? '' }));
  },
});
const laying = ref(false);
async function cutTogether(): Promise<void> {
  trouble.value = '';
  laying.value = true;
  try {
    await router.push(await layOut(ticked.value));
  } catch (error) {
    trouble.value = `They were not laid out: ${error instanceof Error ? error.message : 'something went wrong in the page'}.`;
  } finally {
    laying.value = false;
  }
}
/** Those that are ticked go to the bin, one after the other; what stays says why, and stays ticked. */
async function dropChosen(): Promise<void> {
  for (const { id } of chosen.value) {
    const row = rows.value.find((one) => one.id === id);
    if (!row) continue;
    await put(row, 'bin');
    if (trouble.value) return;
    chosen.value = chosen.value.filter((one) => one.id !== id);
  }
}

const outbox = useOutbox(() => void load());
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
      <nav class="begin no-print" aria-label="Begin">
        <RouterLink to="/orders" class="btn">Orders</RouterLink>
        <RouterLink to="/leaving" class="btn">Leaves today</RouterLink>
        <RouterLink to="/again" class="btn">Quick parcel</RouterLink>
        <RouterLink to="/shipments/new" class="btn" :class="{ 'btn-primary': chosen.length === 0 }">
          <PlusIcon aria-hidden="true" /> New shipment
        </RouterLink>
      </nav>
    </div>
    <div class="ways no-print">
      <label>
        <span class="word">Show</span>
        <BFormSelect v-model="place" name="place" :options="PLACES" size="sm" />
      </label>
      <label>
        <span class="word">Sorted</span>
        <BFormSelect v-model="sort" name="sort" :options="SORTS" size="sm" />
      </label>
    </div>
    <section v-if="outbox.length > 0" v-say class="notice no-print" data-test="outbox">
      <h2>Not saved yet</h2>
      <ul>
        <li v-for="{ id, title, says } in outbox" :key="id">
          <RouterLink :to="`/shipments/${id}`">{{ title || 'Untitled' }}</RouterLink>, {{ says }}
        </li>
      </ul>
    </section>
    <p v-if="moved" v-say class="notice moved no-print" data-test="moved">
      “{{ moved.row.inputs.title || 'Untitled' }}” {{ MOVED[moved.to] }}.
      <BButton size="sm" @click="putBack">Undo</BButton>
    </p>
    <p v-if="trouble" v-say class="notice no-print">{{ trouble }}</p>
    <p v-if="away" v-say class="soft">
      The studio’s data can’t be reached. Trying again.
      <template v-if="before">The list is as it was read last.</template>
    </p>
    <p v-else-if="total === undefined" class="soft">
      {{ before ? 'Opening the bench. The list is as it was read last.' : 'Opening the bench' }}
    </p>
    <div v-else-if="clear" class="empty panel">
      <h2>The bench is clear</h2>
      <p>Begin with what the tape measure says: width, height, depth.</p>
      <RouterLink to="/shipments/new" class="btn btn-primary">New shipment</RouterLink>
    </div>
    <p v-else-if="total === 0 && sought">Nothing here is called “{{ sought }}”.</p>
    <p v-else-if="total === 0 && outbox.length === 0">There is nothing here.</p>
    <section v-for="group in groups" :key="group.name" class="group">
      <h2 v-if="group.name">
        {{ group.name }} <span class="soft">{{ counted(group.rows.length, 'shipment') }}</span>
      </h2>
      <ul>
        <BenchLine
          v-for="row in group.rows"
          :key="row.id"
          v-model:chosen="ticked"
          :row="row"
          :place="place"
          @put="(to) => put(row, to)"
        />
      </ul>
    </section>
    <p v-if="list.hasNextPage.value" class="more no-print">
      <BButton @click="() => list.fetchNextPage()">Show more</BButton>
      <span class="soft">{{ rows.length }} of {{ total }}</span>
    </p>
    <ChosenBar
      v-if="place === 'bench' && chosen.length > 0"
      v-model="chosen"
      :busy="laying"
      @cut="cutTogether"
      @drop="dropChosen"
    />
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
}
.search kbd {
  position: absolute;
  top: 9px;
  right: 9px;
}
.ways {
  display: flex;
  align-items: center;
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
.begin {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
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
  margin: 14px 0 4px;
  font-size: 1.125rem;
}
h2 .soft {
  margin-left: 8px;
  font-family: inherit;
  font-size: 0.9375rem;
  font-weight: 400;
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
  }
  .begin {
    display: grid;
    width: 100%;
    grid-template-columns: 1fr 1fr;
  }
  .begin .btn {
    justify-content: center;
    padding-inline: 8px;
  }
  .ways {
    flex-wrap: nowrap;
    gap: 8px;
  }
  .word {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
}
</style>
