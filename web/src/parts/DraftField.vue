<script setup lang="ts">
import { computed } from 'vue';

import { useStudio } from '@/api/useStudio';
import { FIELDS } from '@/shipment/fields';
import type { Field, FieldPath } from '@/shipment/fields';
import { usePiece } from '@/shipment/usePiece';
import { useShipment } from '@/shipment/useShipment';
import { dayAndYear } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import ChoiceField from './ChoiceField.vue';
import LengthField from './LengthField.vue';
import NumberField from './NumberField.vue';
import TextField from './TextField.vue';
import TickField from './TickField.vue';

/** A field of the open shipment, as the registry knows it. */
const { path, codes, empty, placeholder, label, hint } = defineProps<{
  path: FieldPath;
  /** What it may hold, where that is not known beforehand. */
  codes?: readonly { value: string; text: string }[];
  /** What a list shows while nothing is chosen. */
  empty?: string;
  /** What stands for it while nothing is typed. */
  placeholder?: string;
  label?: string;
  hint?: string;
}>();
const { draft, errors, save } = useShipment();
const { studio } = useStudio();
const { at } = usePiece();
const units = useUnits();

const field = computed<Field>(() => FIELDS[path]);
const called = computed(() => label ?? field.value.label);
/** Of several pieces the one in hand. */
const place = computed(() => at(path));
const error = computed(() => errors.value[place.value]);
const known = computed(() => studio.value?.hints.find((one) => one.field === path));

type Holder = Record<string, unknown>;
const keys = computed(() => place.value.split('.'));
const holder = computed(() => {
  const inside = keys.value.slice(0, -1);
  return inside.reduce<Holder>((part, key) => part[key] as Holder, draft as unknown as Holder);
});
const value = computed<unknown>({
  get: () => holder.value[keys.value.at(-1) ?? ''],
  set: (next) => {
    holder.value[keys.value.at(-1) ?? ''] = next;
  },
});
const text = computed({
  get: () => String((value.value ?? '') as string),
  set: (next: string) => (value.value = next),
});
const number = computed({
  get: () => value.value as number | null,
  set: (next: number | null) => (value.value = next),
});
const ticked = computed({
  get: () => value.value === true,
  set: (next: boolean) => {
    value.value = next;
    // What is ticked is whole, and waits for nothing more to be typed.
    void save();
  },
});

/** What the house does while nothing is typed. */
const rule = computed(() => {
  const key = field.value.rule;
  const allowances = studio.value?.rules.allowances as Record<string, number> | undefined;
  const mm = key ? allowances?.[key] : undefined;
  return mm === undefined ? undefined : `house rule: ${units.length(mm)}`;
});
const says = computed(() => {
  if (hint !== undefined) return hint;
  if (field.value.kind === 'day') return text.value ? dayAndYear(text.value) : undefined;
  return known.value?.says ?? rule.value;
});
const stands = computed(() => placeholder ?? known.value?.empty?.toString());
</script>

<template>
  <TickField v-if="field.kind === 'tick'" v-model="ticked" :label="called" :name="place" />
  <ChoiceField
    v-else-if="field.kind === 'choice'"
    v-model="text"
    :label="called"
    :name="place"
    :choices="codes ?? field.codes ?? []"
    :empty="empty"
    :error="error"
    :hint="says"
  />
  <NumberField
    v-else-if="field.kind === 'number'"
    v-model="number"
    :label="called"
    :name="place"
    :placeholder="stands"
    :error="error"
    :hint="says"
  />
  <LengthField
    v-else-if="field.kind === 'length'"
    v-model="text"
    :label="called"
    :name="place"
    :placeholder="stands"
    :error="error"
    :hint="says"
  />
  <TextField
    v-else
    v-model="text"
    :label="called"
    :name="place"
    :type="field.kind === 'day' ? 'date' : 'text'"
    :error="error"
    :hint="says"
  />
</template>
