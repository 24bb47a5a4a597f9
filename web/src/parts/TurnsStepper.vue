<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';

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
</script>

<template>
  <div class="stepper" role="group" :aria-label="label">
    <span class="label">{{ label }}</span>
    <BButton
      size="sm"
      :disabled="shown <= least"
      :aria-label="`one ${unit} less`"
      @click="emit('set', shown - 1)"
      >−</BButton
    >
    <output class="figure">{{ shown }}</output>
    <BButton
      size="sm"
      :disabled="shown >= most"
      :aria-label="`one ${unit} more`"
      @click="emit('set', shown + 1)"
      >+</BButton
    >
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
  font-size: 1.25rem;
}
output {
  min-width: 1.5em;
  font-size: 1.25rem;
  font-weight: 600;
  text-align: center;
}
</style>
