<script setup lang="ts">
import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import { counted } from '@/words/grammar';
import EmptyPlace from '@/parts/EmptyPlace.vue';
import { vSay } from '@/said/say';
import { dayAndYear } from '@/units/show';

/** The layouts that were made, the newest first. */
const { data: rows, away } = useRead({
  queryKey: ['cuttings'],
  queryFn: ({ signal }) => answer(api.GET('/api/v1/cuttings', { signal })),
});
const OF = { all: '', inner: 'what goes inside', boxes: 'the boxes' };
const day = (at: number) => dayAndYear(new Date(at * 1000).toISOString().slice(0, 10));
</script>

<template>
  <div class="page">
    <div class="heading-row">
      <h1>Cutting plans</h1>
      <RouterLink to="/tools/cutting/blank" class="btn">Read in a blank (DXF)</RouterLink>
    </div>
    <p v-if="away" v-say class="soft">The layouts can’t be reached. Trying again.</p>
    <p v-else-if="!rows" class="soft">Opening the layouts</p>
    <EmptyPlace
      v-else-if="rows.length === 0"
      drawing="cutting"
      says="Nothing was laid out yet. Tick shipments on the bench to cut them together, or start from a Box."
    >
      <RouterLink to="/" class="btn btn-primary">To the bench</RouterLink>
    </EmptyPlace>
    <ul v-else>
      <li v-for="row in rows" :key="row.id">
        <RouterLink :to="`/tools/cutting/${row.id}`">{{
          row.titles.map((title) => title || 'Untitled').join(', ')
        }}</RouterLink>
        <span class="soft">
          {{ [counted(row.sheets, 'sheet'), OF[row.of], day(row.made_at)].filter(Boolean).join(', ') }}
        </span>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.page {
  max-width: 900px;
}
h1 {
  margin: 4px 0;
  font-size: var(--type-title);
}
ul {
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  padding: 10px 0;
  border-bottom: 1px solid var(--sedge);
}
</style>
