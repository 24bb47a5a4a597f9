<script setup lang="ts">
import { BFormCheckboxGroup } from 'bootstrap-vue-next/components/BFormCheckbox';
import { computed } from 'vue';

/** Some of a list, ticked; none of them stands for any. */
const {
  label,
  choices,
  none = 'any',
} = defineProps<{
  label: string;
  choices: readonly { value: string; text: string }[];
  /** What it says while none is ticked. */
  none?: string;
}>();
const ticked = defineModel<string[]>({ required: true });

const said = computed(() => {
  const names = choices.filter(({ value }) => ticked.value.includes(value)).map(({ text }) => text);
  return names.length === 0 ? none : names.join(', ');
});
</script>

<template>
  <div class="list">
    <strong>{{ label }}</strong>
    <details>
      <summary>{{ said }}</summary>
      <BFormCheckboxGroup v-model="ticked" :options="choices" stacked />
    </details>
  </div>
</template>

<style scoped>
summary {
  padding: 6px 0;
  line-height: 1.3;
  cursor: pointer;
}
</style>
