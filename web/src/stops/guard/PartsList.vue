<script setup lang="ts">
import { partWords } from '@/words/layers';
import type { Layer } from '@/api/types';
import { useUnits } from '@/units/useUnits';

/** What a layer takes off the shelf, as it is cut, torn or counted. */
defineProps<{ layer: Layer }>();
const units = useUnits();
</script>

<template>
  <ul class="figure" aria-label="Materials">
    <li v-for="(part, place) in layer.parts" :key="place">{{ partWords(part, layer, units) }}</li>
  </ul>
</template>

<style scoped>
ul {
  margin: 0 0 8px;
  padding-left: 18px;
  color: var(--peat-soft);
}
</style>
