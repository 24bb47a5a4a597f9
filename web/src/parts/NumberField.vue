<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput';
import { computed, ref, watch } from 'vue';

import { useLooseText } from '@/shipment/useShipment';

import FieldShell from './FieldShell.vue';

const { label, name, error, hint, placeholder, bare } = defineProps<{
  label: string;
  /** The path of the value, as the server names it. */
  name: string;
  error?: string;
  hint?: string;
  /** In a table, whose head says what it is. */
  bare?: boolean;
  placeholder?: string;
}>();
const number = defineModel<number | null>({ required: true });

/** What is not a number yet. */
const loose = useLooseText(name);
const text = ref(loose.value ?? shown(number.value));
const wrong = ref(loose.value !== undefined);

function shown(value: number | null): string {
  return value === null ? '' : String(value);
}

/** What is not a number stays in the field with a word about it; nothing is made of it. */
const typed = computed({
  get: () => text.value,
  set: (next: string | number | null) => {
    text.value = String(next ?? '');
    const trimmed = text.value.trim().replace(',', '.');
    const read = trimmed === '' ? null : Number(trimmed);
    wrong.value = read !== null && !Number.isFinite(read);
    loose.value = wrong.value ? text.value : undefined;
    if (!wrong.value) number.value = read;
  },
});

watch(number, (value) => {
  const read = text.value.trim() === '' ? null : Number(text.value.replace(',', '.'));
  if (read !== value && !wrong.value) text.value = shown(value);
});

const says = computed(() => (wrong.value ? `“${text.value}” is not a number` : error));
</script>

<template>
  <FieldShell v-slot="{ id, described }" :label="label" :error="says" :hint="hint" :bare="bare">
    <BFormInput
      :id="id"
      v-model="typed"
      :name="name"
      :state="says ? false : null"
      :placeholder="placeholder"
      :aria-describedby="described"
      inputmode="decimal"
      autocomplete="off"
    />
  </FieldShell>
</template>
