<script setup lang="ts">
import { computed } from 'vue';

import SumSheet from './SumSheet.vue';
import { SUMS } from './sums';

const { sum: wanted } = defineProps<{ sum?: string }>();
const sum = computed(() => SUMS.find(({ name }) => name === wanted) ?? SUMS[0]);
</script>

<template>
  <div class="page">
    <div class="heading-row no-print">
      <h1>Quick sums</h1>
      <span class="soft">what is done on scraps of paper, without a shipment</span>
    </div>
    <div class="sums">
      <nav class="no-print" aria-label="Quick sums">
        <RouterLink
          v-for="{ name, title } in SUMS"
          :key="name"
          :to="`/tools/sums/${name}`"
          :class="{ here: name === sum?.name }"
          :aria-current="name === sum?.name ? 'page' : undefined"
          >{{ title }}</RouterLink
        >
      </nav>
      <SumSheet v-if="sum" :key="sum.name" :sum="sum" />
    </div>
    <p class="soft no-print">
      Scripts can ask the same under <code>POST /api/v1/sums/…</code>:
      <a href="/about/api">the API, described</a>.
    </p>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.page {
  max-width: 1200px;
}
h1 {
  margin: 4px 0;
  font-size: var(--type-title);
}
.heading-row {
  justify-content: flex-start;
}
.sums {
  display: grid;
  grid-template-columns: 180px minmax(0, 1fr);
  gap: 24px;
  align-items: start;
}
nav {
  display: flex;
  flex-direction: column;
  border-top: 1px solid var(--sedge);
}
nav a {
  padding: 9px 10px;
  border-bottom: 1px solid var(--sedge);
  border-left: 4px solid transparent;
  color: var(--peat);
  text-decoration: none;
}
nav .here {
  border-left-color: var(--heather);
  background: var(--paper);
  font-weight: 600;
}
@include at.tablet {
  .sums {
    grid-template-columns: minmax(0, 1fr);
  }
  nav {
    flex-direction: row;
    flex-wrap: wrap;
    border: 0;
  }
  nav a {
    border: 1px solid var(--sedge);
  }
}
@media print {
  .sums {
    display: block;
  }
}
</style>
