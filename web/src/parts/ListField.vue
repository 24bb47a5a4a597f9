<script setup lang="ts">
import { ref, watch } from 'vue';

import TextField from './TextField.vue';

/** A short list typed with commas; the text stays as it is typed. */
const { label, name, error } = defineProps<{ label: string; name: string; error?: string; bare?: boolean }>();
const list = defineModel<string[]>({ required: true });

const text = ref(list.value.join(', '));
const parted = (typed: string) =>
  typed
    .split(/[,;]/)
    .map((part) => part.trim())
    .filter(Boolean);

watch(text, (typed) => {
  list.value = parted(typed);
});
watch(list, (known) => {
  if (parted(text.value).join() !== known.join()) text.value = known.join(', ');
});
</script>

<template>
  <TextField v-model="text" :label="label" :name="name" :error="error" :bare="bare" />
</template>
