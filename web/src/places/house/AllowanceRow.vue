<script setup lang="ts">
import { computed } from 'vue';

import type { Allowance } from '@/api/types';
import { useStudio } from '@/api/useStudio';
import NumberField from '@/parts/NumberField.vue';

const { allowance, error } = defineProps<{ allowance: Allowance; error?: string }>();
const value = defineModel<number | null | undefined>({ required: true });

const number = computed({
  get: () => value.value ?? null,
  set: (next) => {
    value.value = next;
  },
});
const { studio } = useStudio();
const unit = computed(() => (allowance.is_money ? studio.value?.catalogue.currency : allowance.unit));
const label = computed(() => `${allowance.name}${unit.value ? `, ${unit.value}` : ''}`);
/** What a sum begins with is in euros, and its range is wide enough for any money. */
const range = computed(() => {
  if (allowance.is_money) return `${allowance.default} EUR to start with`;
  return `${allowance.default} to start with; from ${allowance.least} to ${allowance.most}`;
});
const empty = computed(() => (value.value == null ? 'give a number' : error));
</script>

<template>
  <div class="row" :class="{ other: number !== allowance.default }">
    <NumberField
      v-model="number"
      :label="label"
      :name="`allowances.${allowance.key}`"
      :error="empty"
      :hint="range"
    />
    <p class="soft">{{ allowance.reason }}</p>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.row {
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr);
  gap: 0 16px;
  align-items: center;
  padding-left: 8px;
  border-left: 4px solid transparent;
}
.other {
  border-left-color: var(--heather);
}
.row :deep(label)::first-letter {
  text-transform: uppercase;
}
p {
  margin: 0;
}
@include at.phone {
  .row {
    grid-template-columns: minmax(0, 1fr);
  }
  p {
    margin-bottom: 12px;
  }
}
</style>
