<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import { vSay } from '@/said/say';

import { useStudios } from './useStudios';

/** The studios of this program: the one that is shown, and the others. */
const { studios, show, trouble } = useStudios();
const others = computed(() => studios.value.filter(({ shown }) => !shown));
const hasOwn = computed(() => studios.value.some(({ demo }) => !demo));
const called = (studio: { name: string; demo: boolean }) =>
  `${studio.name || 'A studio that is not set up yet'}${studio.demo ? ', the demo' : ''}`;
</script>

<template>
  <section
    v-if="others.length > 0 || !hasOwn"
    aria-label="Studios of this program"
    class="no-print"
    data-test="studios"
  >
    <h2>Studios of this program</h2>
    <p class="soft">
      They share nothing: shipments, stores, rates and photographs are each one’s own. Which one is shown is
      this browser’s choice.
    </p>
    <ul>
      <li v-for="studio in others" :key="studio.id">
        {{ called(studio) }}
        <BButton size="sm" @click="show(studio.id)">Open it</BButton>
      </li>
    </ul>
    <RouterLink v-if="!hasOwn" to="/set-up" class="btn btn-outline-secondary"
      >Set up my own studio</RouterLink
    >
    <p v-if="trouble" v-say class="stop">{{ trouble }}.</p>
  </section>
</template>

<style scoped>
section {
  margin-top: 24px;
  padding-top: 12px;
  border-top: 1px solid var(--sedge);
}
h2 {
  font-size: var(--type-lead);
}
li {
  margin-bottom: 8px;
}
.stop {
  color: var(--rowan);
}
</style>
