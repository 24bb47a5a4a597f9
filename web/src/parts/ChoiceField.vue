<script setup lang="ts">
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect';

import FieldShell from './FieldShell.vue';

const { label, name, choices, empty, error, hint } = defineProps<{
  label: string;
  /** The path of the value, as the server names it. */
  name: string;
  choices: readonly { value: string; text: string }[];
  /** What stands there while nothing is chosen. */
  empty?: string;
  error?: string;
  hint?: string;
}>();
const chosen = defineModel<string>({ required: true });
</script>

<template>
  <FieldShell v-slot="{ id, described }" :label="label" :error="error" :hint="hint">
    <BFormSelect
      :id="id"
      v-model="chosen"
      :name="name"
      :state="error ? false : null"
      :aria-describedby="described"
    >
      <option v-if="empty !== undefined" value="">{{ empty }}</option>
      <option v-for="choice in choices" :key="choice.value" :value="choice.value">{{ choice.text }}</option>
    </BFormSelect>
  </FieldShell>
</template>
