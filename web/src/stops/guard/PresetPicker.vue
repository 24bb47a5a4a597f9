<script setup lang="ts">
import { onMounted, ref, shallowRef } from 'vue';

import { answer, api } from '@/api/client';
import type { Preset } from '@/api/types';
import { useShipment } from '@/shipment/useShipment';

const { draft } = useShipment();
const presets = shallowRef<Preset[]>([]);
const wanted = ref('');
/** Asks the table of the house again. */
const TABLE = '(table)';

onMounted(async () => {
  presets.value = await answer(api.GET('/api/v1/studio/presets')).catch(() => []);
});

/** A preset takes the place of the schools and layers that were chosen; materials and numbers stay. */
function follow(): void {
  draft.choices.schools = {};
  draft.choices.layers = {};
  draft.choices.preset = wanted.value === TABLE ? '' : wanted.value;
  wanted.value = '';
}
</script>

<template>
  <label class="no-print">
    <span class="visually-hidden">Follow a preset for this shipment</span>
    <select v-model="wanted" class="form-select" name="preset" @change="follow">
      <option value="">Begin from another preset</option>
      <option :value="TABLE">As “From whom to begin” says</option>
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
