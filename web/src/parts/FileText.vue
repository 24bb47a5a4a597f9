<script setup lang="ts">
import { BFormTextarea } from 'bootstrap-vue-next/components/BFormTextarea';

import FieldShell from './FieldShell.vue';

/** A text that is pasted, or read from a file. */
const {
  label,
  name,
  accept = '.csv,text/csv,text/plain',
} = defineProps<{
  label: string;
  name: string;
  hint?: string;
  accept?: string;
}>();
const text = defineModel<string>({ required: true });

async function read(event: Event): Promise<void> {
  const file = (event.target as HTMLInputElement).files?.[0];
  if (file) text.value = await file.text();
}
</script>

<template>
  <FieldShell v-slot="{ id, described }" :label="label" :hint="hint">
    <BFormTextarea
      :id="id"
      v-model="text"
      :name="name"
      rows="7"
      spellcheck="false"
      :aria-describedby="described"
    />
    <input type="file" :accept="accept" aria-label="or from a file" @change="read" />
  </FieldShell>
</template>

<style scoped>
textarea {
  font-size: 0.9375rem;
}
input {
  min-height: 44px;
  margin-top: 6px;
  padding-top: 6px;
  font-size: 0.9375rem;
}
</style>
