<script setup lang="ts">
import { useId } from 'vue';

import { vSay } from '@/said/say';

defineProps<{
  label: string;
  error?: string;
  hint?: string;
  /** In a table, whose head says what it is. */
  bare?: boolean;
}>();
const id = useId();
</script>

<template>
  <div class="field">
    <label :for="id" :class="{ 'visually-hidden': bare }">{{ label }}</label>
    <slot :id="id" :described="`${id}-says`" />
    <p v-if="!bare || error" :id="`${id}-says`" v-say="Boolean(error)" class="says" :class="{ error }">
      {{ error ?? hint }}
    </p>
  </div>
</template>

<style scoped>
.field {
  min-width: 0;
}
label {
  display: block;
  margin-bottom: 2px;
  font-weight: 600;
}
.says {
  margin: 2px 0 10px;
  color: var(--peat-soft);
  font-size: var(--type-small);
  line-height: 1.3;
}
.error {
  color: var(--rowan);
  font-weight: 600;
}
</style>
