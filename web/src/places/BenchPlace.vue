<script setup lang="ts">
import PlusIcon from '~icons/tabler/plus';

import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect';
import { computed, ref, useTemplateRef } from 'vue';
import { useRouter } from 'vue-router';

import { useKeys } from '@/keys/useKeys';
import EmptyPlace from '@/parts/EmptyPlace.vue';
import { vSay } from '@/said/say';
import { useOutbox } from '@/shipment/useOutbox';
import { counted } from '@/words/grammar';

import { grouped, MOVED, PLACES, SORTS } from './bench';
import BenchLine from './BenchLine.vue';
import ChosenBar from './ChosenBar.vue';
import { layOut } from './cutting/layOut';
import { useBench } from './useBench';
import { useChosen } from './useChosen';

const router = useRouter();
const { sought, place, sort, list, before, rows, total, away, trouble, moved, put, putBack } = useBench();
const field = useTemplateRef<HTMLInputElement>('search');
const groups = computed(() =>
  place.value === 'bench' && sort.value === 'promised'
    ? grouped(rows.value)
    : [{ name: '', rows: rows.value }],
);
const outbox = useOutbox(() => void list.refetch());
const clear = computed(
  () => outbox.value.length === 0 && total.value === 0 && !sought.value && place.value === 'bench',
);

const chosen = useChosen();
/** The ticks of the rows, by what each is called. */
const ticked = computed({
  get: () => chosen.value.map(({ id }) => id),
  set: (ids: string[]) => {
    const known = new Map(chosen.value.map((one) => [one.id, one]));
    for (const { id, inputs, tracking } of rows.value)
      known.set(id, { id, title: inputs.title, numbered: Boolean(tracking) });
    chosen.value = ids.map((id) => known.get(id) ?? { id, title: '', numbered: false });
  },
});
const laying = ref(false);
async function cutTogether(): Promise<void> {
  trouble.value = '';
  laying.value = true;
  try {
    await router.push(await layOut(ticked.value));
  } catch (error) {
    trouble.value = `They couldn’t be laid out: ${error instanceof Error ? error.message : 'something went wrong in the page'}.`;
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
useKeys({ '/': () => field.value?.focus() });
</script>

<template>
  <div class="page">
    <div class="heading-row">
      <h1>{{ PLACES.find(({ value }) => value === place)?.text ?? 'On the bench' }}</h1>
      <label class="search no-print">
        <span class="visually-hidden">Search title, buyer, town or order number</span>
        <input
          ref="search"
          v-model="sought"
          type="search"
          maxlength="120"
          class="form-control"
          placeholder="Title, buyer, town, order"
        />
        <kbd aria-hidden="true">/</kbd>
      </label>
      <nav class="begin no-print" aria-label="Begin">
        <RouterLink to="/orders" class="btn">Orders</RouterLink>
        <RouterLink to="/leaving" class="btn">Outgoing today</RouterLink>
        <RouterLink to="/again" class="btn">Quick parcel</RouterLink>
        <RouterLink to="/shipments/new" class="btn" :class="{ 'btn-primary': chosen.length === 0 }">
          <PlusIcon aria-hidden="true" /> New parcel
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
    <EmptyPlace
      v-else-if="clear"
      drawing="bench"
      says="The bench is clear. Begin with what the tape measure says: width, height, depth."
    >
      <RouterLink to="/shipments/new" class="btn btn-primary">New parcel</RouterLink>
    </EmptyPlace>
    <p v-else-if="total === 0 && sought">Nothing here is called “{{ sought }}”.</p>
    <p v-else-if="total === 0 && outbox.length === 0">No shipments here.</p>
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

<style scoped lang="scss">
@use '@/styles/at';

.page {
  max-width: 1240px;
}
.heading-row {
  align-items: center;
}
h1 {
  margin: 4px 0;
  font-size: var(--type-title);
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
  font-size: var(--type-strong);
}
h2 .soft {
  margin-left: 8px;
  font-family: inherit;
  font-size: var(--type-small);
  font-weight: 400;
}
ul {
  margin: 0;
  padding: 0;
  border-top: 1px solid var(--sedge);
  list-style: none;
}
@include at.phone {
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
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 8px;
  }
  .ways label,
  .ways select {
    width: 100%;
    min-width: 0;
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
