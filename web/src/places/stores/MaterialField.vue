<script setup lang="ts">
import { BFormCheckboxGroup } from 'bootstrap-vue-next/components/BFormCheckbox';
import { computed, ref } from 'vue';

import ChoiceField from '@/parts/ChoiceField.vue';
import NumberField from '@/parts/NumberField.vue';
import TextField from '@/parts/TextField.vue';
import TickField from '@/parts/TickField.vue';
import { vSay } from '@/said/say';
import { measured } from '@/units/measured';
import { withPoint } from '@/units/typed';

import CurveFields from './CurveFields.vue';
import SheetList from './SheetList.vue';
import { partOf } from './shelves';
import type { Field, Material } from './shelves';

const { field, material, errors } = defineProps<{
  field: Field;
  material: Material;
  errors: Record<string, string>;
}>();
const emit = defineEmits<{ set: [key: string, value: unknown] }>();

/** In which unit it is read and typed here; it is kept in its own. */
const read = computed(() => measured(field.unit));
const label = computed(() => (read.value.unit ? `${field.label}, ${read.value.unit}` : field.label));
const name = computed(() => `material.${field.key}`);
const error = computed(() => errors[field.key]);
const set = (value: unknown) => emit('set', field.key, value);

const text = computed({
  get: () => String(partOf(material, field.key) ?? ''),
  set: (value) => {
    const typed = field.kind === 'price' ? withPoint(value) : value;
    set(typed === '' && field.optional ? undefined : typed);
  },
});
/** What was typed last, which stays as it was typed. */
const typed = ref<number | null>(null);
const number = computed({
  get: () => {
    const kept = partOf(material, field.key) as number | undefined;
    if (kept === undefined) return null;
    return typed.value !== null && read.value.kept(typed.value) === kept
      ? typed.value
      : read.value.shown(kept);
  },
  set: (value) => {
    typed.value = value;
    set(value === null ? undefined : read.value.kept(value));
  },
});
/**
 * Numbers with commas between, or with semicolons where commas are decimal ones; what is none stays as it was typed, for the
 * server to refuse.
 */
const numbers = computed({
  get: () => [partOf(material, field.key) ?? []].flat().join(', '),
  set: (value: string) => {
    const between = value.includes(';') ? /[;\s]+/ : /[,\s]+/;
    const parts = value.split(between).filter((part) => part !== '');
    const figures = parts.map((part) => Number(withPoint(part)));
    set(parts.length === 0 ? undefined : figures.some(Number.isNaN) ? value : figures);
  },
});
const tick = computed({ get: () => partOf(material, field.key) === true, set });
const words = computed({ get: () => (partOf(material, field.key) as string[] | undefined) ?? [], set });
</script>

<template>
  <NumberField v-if="field.kind === 'number'" v-model="number" :label="label" :name="name" :error="error" />
  <TextField
    v-else-if="field.kind === 'text' || field.kind === 'price'"
    v-model="text"
    :label="label"
    :name="name"
    :error="error"
  />
  <TextField
    v-else-if="field.kind === 'numbers'"
    v-model="numbers"
    :label="label"
    :name="name"
    :error="error"
  />
  <TickField v-else-if="field.kind === 'tick'" v-model="tick" :label="label" :name="name" class="wide" />
  <ChoiceField
    v-else-if="field.kind === 'choice'"
    v-model="text"
    :label="label"
    :name="name"
    :choices="field.choices ?? []"
    :error="error"
  />
  <fieldset v-else-if="field.kind === 'words'" class="wide">
    <legend>{{ label }}</legend>
    <BFormCheckboxGroup v-model="words" :name="name" :options="[...(field.choices ?? [])]" />
    <p v-if="error" v-say class="error">{{ error }}</p>
  </fieldset>
  <SheetList
    v-else-if="field.kind === 'sheets'"
    class="wide"
    :sheets="(partOf(material, field.key) as never) ?? []"
    :thick="'density_kg_m3' in material || material.curve !== undefined"
    :errors="errors"
    @set="set"
  />
  <CurveFields
    v-else
    class="wide"
    :curve="(partOf(material, field.key) as never) ?? undefined"
    :optional="field.optional === true"
    :errors="errors"
    @set="set"
  />
</template>

<style scoped>
.wide {
  grid-column: 1 / -1;
}
fieldset {
  margin: 0 0 10px;
}
legend {
  margin: 0;
  font-size: var(--type-text);
  font-weight: 600;
}
fieldset label {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  min-height: 44px;
  margin-right: 16px;
}
fieldset input {
  width: 20px;
  height: 20px;
  accent-color: var(--moss);
}
.error {
  color: var(--rowan);
}
</style>
