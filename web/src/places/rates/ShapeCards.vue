<script setup lang="ts">
import { computed } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import type { PriceTable, ShapedSheet } from '@/api/types';

/** The shapes that a price list can begin in, each as the price sheet of a carrier that there isn’t. */
const emit = defineEmits<{ begin: [shaped: ShapedSheet] }>();
const { data: shapes } = useRead<ShapedSheet[]>({
  queryKey: ['tariff-shapes'],
  queryFn: ({ signal }) => answer(api.GET('/api/v1/tariffs/shapes', { signal })),
});

interface Picture {
  head: string[];
  rows: string[][];
}
const ROWS = 3;

function byWeight({ weights, zones }: PriceTable): Picture {
  return {
    head: ['up to', ...zones.map(({ zone }) => zone)],
    rows: weights
      .slice(0, ROWS)
      .map((weight, row) => [weight, ...zones.map(({ prices }) => prices[row] ?? '')]),
  };
}
/** A figure without its unit, which the last of several names. */
const bare = (figure: string) => figure.split(' ')[0] ?? figure;
/** The first rows of a price sheet, as its carrier prints it. */
function picture({ example }: ShapedSheet): Picture {
  const service = example.services[0];
  if (!service) return { head: [], rows: [] };
  if (service.formats.length === 0) return byWeight(service.prices);
  return {
    head: ['box', 'price'],
    rows: service.formats.map(({ name, length, width, height, prices }) => [
      `${name}, ${[length, width].map(bare).join(' × ')} × ${height}`,
      prices.zones[0]?.prices[0] ?? '',
    ]),
  };
}
const cards = computed(() => (shapes.value ?? []).map((shaped) => ({ shaped, ...picture(shaped) })));
</script>

<template>
  <section aria-labelledby="shapes" data-test="shapes">
    <h2 id="shapes">Which of these looks like the carrier’s price sheet?</h2>
    <p class="soft">The prices are invented. You type the carrier’s own in the next step.</p>
    <ul>
      <li v-for="{ shaped, head, rows } in cards" :key="shaped.shape">
        <button type="button" :data-shape="shaped.shape" @click="emit('begin', shaped)">
          <strong>{{ shaped.name }}</strong>
          <span class="soft">{{ shaped.about }}</span>
          <span class="sheet figure" aria-hidden="true" :style="{ '--columns': head.length - 1 }">
            <template v-for="(cells, row) in [head, ...rows]" :key="row">
              <span
                v-for="(cell, at) in cells"
                :key="at"
                :class="{ head: row === 0, number: at > 0, last: row === rows.length }"
                >{{ cell }}</span
              >
            </template>
          </span>
          <span v-if="shaped.shape === 'volume'" class="soft figure"
            >size counts as {{ shaped.example.services[0]?.billable.divisor }}</span
          >
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped lang="scss">
@use '@/styles/at';

h2 {
  margin: 8px 0 0;
  font-size: var(--type-lead);
}
ul {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(270px, 100%), 1fr));
  gap: 12px;
  margin: 8px 0 16px;
  padding: 0;
  list-style: none;
}
button {
  display: grid;
  width: 100%;
  height: 100%;
  align-content: start;
  gap: 4px;
  padding: 12px 16px;
  border: 1px solid var(--sedge);
  border-left: 4px solid var(--sedge);
  border-radius: 3px;
  background: var(--paper);
  color: inherit;
  text-align: left;
}
button:hover {
  border-left-color: var(--heather);
  background: var(--lichen);
}
strong {
  font-family: var(--heading);
  font-size: var(--type-strong);
}
.sheet {
  display: grid;
  grid-template-columns: 1fr repeat(var(--columns), auto);
  gap: 0 16px;
  margin-top: 8px;
  font-size: var(--type-small);
}
.sheet .head {
  border-bottom: 1px solid var(--peat-soft);
}
.sheet .number {
  text-align: right;
}
</style>
