<script setup lang="ts">
import { computed } from 'vue';

import { closedBox } from './closed';
import type { Closing } from './closed';
import SlabFaces from './SlabFaces.vue';

/** A box as it stands closed, with what opens it lifted, as small as a stamp. */
const { closing, sides } = defineProps<{
  closing: Closing;
  /** Outside: across, up and through. */
  sides: readonly [number, number, number];
}>();
const WIDTH = 150;
const HEIGHT = 86;
const drawn = computed(() => closedBox(closing, sides, { width: WIDTH, height: HEIGHT }));
</script>

<template>
  <svg :viewBox="`-2 -2 ${WIDTH + 4} ${HEIGHT + 4}`" class="closed" aria-hidden="true">
    <SlabFaces :faces="drawn" />
  </svg>
</template>

<style scoped>
.closed {
  display: block;
  width: 100%;
  height: 78px;
}
</style>
