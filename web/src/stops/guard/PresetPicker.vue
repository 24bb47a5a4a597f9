<script setup lang="ts">
import { onMounted, ref, shallowRef } from 'vue';

import { answer, api } from '@/api/client';
import type { Preset } from '@/api/types';
import { useShipment } from '@/shipment/useShipment';

const { draft } = useShipment();
const presets = shallowRef<Preset[]>([]);
const wanted = ref('');

onMounted(async () => {
  presets.value = await answer(api.GET('/api/v1/studio/presets')).catch(() => []);
});

/** A preset takes the place of the schools and layers that were chosen; materials and numbers stay. */
function follow(): void {
  const preset = presets.value.find(({ rules }) => rules.name === wanted.value);
  if (!preset) return;
  const kept = (values: object | undefined) =>
    Object.fromEntries(Object.entries(values ?? {}).filter(([, value]) => value !== null));
  draft.choices.schools = kept(preset.choices.schools) as Record<string, string>;
  draft.choices.layers = kept(preset.choices.layers) as Record<string, boolean>;
  wanted.value = '';
}
</script>

<template>
  <label class="no-print">
    <span class="visually-hidden">Follow a preset for this shipment</span>
    <select v-model="wanted" class="form-select" name="preset" @change="follow">
      <option value="">Follow a preset here</option>
      <option v-for="{ rules } in presets" :key="rules.name" :value="rules.name">{{ rules.name }}</option>
    </select>
  </label>
</template>

<style scoped>
.form-select {
  width: auto;
  min-height: 36px;
  padding-block: 2px;
  font-size: 0.9375rem;
}
</style>
