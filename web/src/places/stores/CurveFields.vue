<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';

import NumberField from '@/parts/NumberField.vue';

type Curve = Record<string, number | undefined>;

const { curve, optional, errors } = defineProps<{
  curve?: Curve;
  optional: boolean;
  errors: Record<string, string>;
}>();
const emit = defineEmits<{ set: [curve: Curve | undefined] }>();

const PARTS = [
  { key: 'a_kpa', label: 'a, kPa' },
  { key: 'b_m3_per_kj', label: 'b, m³/kJ' },
  { key: 'epsilon_min_kj_m3', label: 'Tested from, kJ/m³' },
  { key: 'epsilon_max_kj_m3', label: 'Tested to, kJ/m³' },
  { key: 'creep_kpa', label: 'Creep limit, kPa' },
] as const;

function put(key: string, value: number | null): void {
  const next = { ...curve };
  if (value === null) Reflect.deleteProperty(next, key);
  else next[key] = value;
  emit('set', next);
}
</script>

<template>
  <fieldset>
    <legend>Cushion curve</legend>
    <BButton v-if="!curve" size="sm" @click="emit('set', { a_kpa: 25, b_m3_per_kj: 0.05 })">
      Give it a curve
    </BButton>
    <template v-else>
      <div class="parts">
        <NumberField
          v-for="{ key, label } in PARTS"
          :key="key"
          :model-value="curve[key] ?? null"
          :label="label"
          :name="`material.curve.${key}`"
          :error="errors[`curve.${key}`] ?? (key === 'a_kpa' ? errors.curve : undefined)"
          @update:model-value="put(key, $event)"
        />
      </div>
      <BButton v-if="optional" size="sm" variant="link" @click="emit('set', undefined)"
        >It has no curve</BButton
      >
    </template>
  </fieldset>
</template>

<style scoped>
fieldset {
  margin: 0 0 10px;
}
legend {
  margin: 0;
  font-size: var(--type-text);
  font-weight: 600;
}
.parts {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 0 12px;
}
</style>
