<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput';

import FieldShell from './FieldShell.vue';

const {
  label,
  name,
  type = 'text',
  error,
  hint,
  bare,
} = defineProps<{
  label: string;
  /** The path of the value, as the server names it. */
  name: string;
  type?: 'text' | 'date';
  error?: string;
  hint?: string;
  /** In a table, whose head says what it is. */
  bare?: boolean;
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
      autocomplete="off"
    />
  </FieldShell>
</template>
