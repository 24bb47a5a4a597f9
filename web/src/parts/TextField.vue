<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput';

import FieldShell from './FieldShell.vue';

const {
  label,
  name,
  type = 'text',
  autocomplete = 'off',
  error,
  hint,
  bare,
  placeholder,
} = defineProps<{
  label: string;
  /** The path of the value, as the server names it. */
  name: string;
  type?: 'text' | 'date' | 'password';
  /** What the browser may fill in. */
  autocomplete?: string;
  error?: string;
  hint?: string;
  /** In a table, whose head says what it is. */
  bare?: boolean;
  /** What stands there while nothing is typed. */
  placeholder?: string;
}>();
const text = defineModel<string>({ required: true });
</script>

<template>
  <FieldShell v-slot="{ id, described }" :label="label" :error="error" :hint="hint" :bare="bare">
    <BFormInput
      :id="id"
      v-model="text"
      :name="name"
      :type="type"
      :state="error ? false : null"
      :aria-describedby="described"
      :placeholder="placeholder"
      :autocomplete="autocomplete"
    />
  </FieldShell>
</template>
