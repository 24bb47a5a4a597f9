<script setup lang="ts">
import { computed } from 'vue';

/** Some of a list, ticked; none of them stands for any. */
const { label, choices } = defineProps<{
  label: string;
  choices: readonly { value: string; text: string }[];
}>();
const ticked = defineModel<string[]>({ required: true });

const said = computed(() => {
  const names = choices.filter(({ value }) => ticked.value.includes(value)).map(({ text }) => text);
  return names.length === 0 ? 'any' : names.join(', ');
});
</script>

<template>
  <div class="list">
    <strong>{{ label }}</strong>
    <details>
      <summary>{{ said }}</summary>
      <label v-for="choice in choices" :key="choice.value">
        <input v-model="ticked" type="checkbox" class="form-check-input" :value="choice.value" />
        {{ choice.text }}
      </label>
    </details>
  </div>
</template>

<style scoped>
summary {
  padding: 6px 0;
  line-height: 1.3;
  cursor: pointer;
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 44px;
}
</style>
