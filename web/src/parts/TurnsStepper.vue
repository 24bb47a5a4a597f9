<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, watch } from 'vue';

const {
  label,
  least,
  most,
  shown,
  unit = 'turn',
} = defineProps<{
  label: string;
  least: number;
  most: number;
  shown: number;
  /** What is counted. */
  unit?: string;
}>();
const emit = defineEmits<{ set: [turns: number] }>();

/** What was pressed for, while the plan that shows it is worked out: each press counts. */
const wanted = ref<number>();
const value = computed(() => wanted.value ?? shown);

function by(more: number): void {
  wanted.value = Math.min(most, Math.max(least, value.value + more));
  emit('set', wanted.value);
}
watch(
  () => shown,
  (now) => {
    if (now === wanted.value) wanted.value = undefined;
  },
);
</script>

<template>
  <div class="stepper" role="group" :aria-label="label">
    <span class="label">{{ label }}</span>
    <BButton size="sm" :disabled="value <= least" :aria-label="`one ${unit} less`" @click="by(-1)">−</BButton>
    <output class="figure">{{ value }}</output>
    <BButton size="sm" :disabled="value >= most" :aria-label="`one ${unit} more`" @click="by(1)">+</BButton>
  </div>
</template>

<style scoped>
.stepper {
  display: flex;
  align-items: center;
  gap: 8px;
}
.label {
  margin-right: auto;
  font-weight: 600;
}
.btn {
  min-width: 44px;
  min-height: 44px;
  justify-content: center;
  font-size: var(--type-lead);
}
output {
  min-width: 1.5em;
  font-size: var(--type-lead);
  font-weight: 600;
  text-align: center;
}
</style>
