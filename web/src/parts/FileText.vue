<script setup lang="ts">
import { BFormTextarea } from 'bootstrap-vue-next/components/BFormTextarea';

import FieldShell from './FieldShell.vue';
import FilePick from './FilePick.vue';

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

async function read([file]: File[]): Promise<void> {
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
    <FilePick class="file" :accept="accept" says="From a file" @picked="read" />
  </FieldShell>
</template>

<style scoped>
textarea {
  font-size: var(--type-small);
}
.file {
  margin-top: 6px;
}
</style>
