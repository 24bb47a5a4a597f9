<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput';

import { useUnits } from '@/units/useUnits';

import FieldShell from './FieldShell.vue';

const { label, name, error, hint, placeholder } = defineProps<{
  label: string;
  /** The path of the value, as the server names it. */
  name: string;
  error?: string;
  hint?: string;
  placeholder?: string;
}>();
const emit = defineEmits<{ focus: []; blur: [] }>();
const text = defineModel<string>({ required: true });
const { unit } = useUnits();

const HAS_UNIT = /[a-z"'′″’”]/i;

/** Writes the unit after a bare number, so that a later change of unit never changes what was typed. */
function settle(): void {
  const typed = text.value.trim();
  text.value = /\d|[¼-¾⅐-⅞]/.test(typed) && !HAS_UNIT.test(typed) ? `${typed} ${unit.value}` : typed;
  emit('blur');
}
</script>

<template>
  <FieldShell v-slot="{ id, described }" :label="label" :error="error" :hint="hint">
    <BFormInput
      :id="id"
      v-model="text"
      :name="name"
      :state="error ? false : null"
      :placeholder="placeholder"
      :aria-describedby="described"
      autocomplete="off"
      @focus="emit('focus')"
      @blur="settle"
    />
  </FieldShell>
</template>
