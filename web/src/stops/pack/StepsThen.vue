<script setup lang="ts">
import type { Handed } from '@/api/types';
import { dayAndTime } from '@/units/show';

/** What was done of a parcel that left, where its steps were not kept in full. */
const { steps } = defineProps<{ steps: Handed['steps'] }>();
</script>

<template>
  <section aria-label="Steps">
    <h2>Steps</h2>
    <p class="soft">Step names, and the time at which each was ticked.</p>
    <ol class="figure">
      <li v-for="step in steps" :key="step.key">
        {{ step.title }}<span v-if="step.piece" class="soft">, {{ step.piece }}</span>
        <span class="soft at">{{ step.at ? dayAndTime(step.at) : 'not ticked' }}</span>
      </li>
    </ol>
  </section>
</template>

<style scoped lang="scss">
ol {
  max-width: 640px;
  padding-left: 28px;
}
li {
  padding: 4px 0;
  border-bottom: 1px solid var(--sedge);
}
.at {
  float: right;
}
</style>
