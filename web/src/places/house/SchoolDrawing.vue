<script setup lang="ts">
import { computed } from 'vue';

import { SCHOOL_DRAWINGS } from './schoolDrawings';

/** What a school does, beside its words, which say it all. */
const { school } = defineProps<{
  /** Its question and its own key: `fit.snug`. */
  school: string;
}>();
const drawn = computed(() => SCHOOL_DRAWINGS[school]);
</script>

<template>
  <svg v-if="drawn" viewBox="0 0 72 48" aria-hidden="true">
    <path v-for="([pen, line], at) in drawn" :key="at" :class="pen" :d="line" />
  </svg>
</template>

<style scoped>
svg {
  flex: none;
  width: 72px;
  height: 48px;
}
path {
  fill: none;
  stroke: var(--peat);
  stroke-width: 2px;
}
.thin {
  stroke-width: 1px;
}
.soft {
  stroke: var(--water);
  stroke-width: 1.5px;
}
.art {
  fill: var(--heather);
  stroke: none;
}
.filled {
  fill: var(--moss);
  stroke: none;
}
.tape {
  stroke: var(--amber-moss);
  stroke-width: 4px;
}
</style>
