<script setup lang="ts">
import { computed, ref } from 'vue';

import type { SlotState } from '@/api/types';
import { useShipment } from '@/shipment/useShipment';

const { slots } = defineProps<{ slots: SlotState[] }>();
const emit = defineEmits<{ added: [slot: string] }>();
const { choose } = useShipment();

const absent = computed(() => slots.filter(({ present }) => !present));
const free = computed(() => absent.value.filter((slot) => slot.free));
const barred = computed(() => absent.value.filter((slot) => !slot.free));
const wanted = ref('');

function add(): void {
  const slot = wanted.value;
  if (!slot) return;
  choose({ layers: { [slot]: true } });
  wanted.value = '';
  emit('added', slot);
}
</script>

<template>
  <div class="add no-print">
    <label>
      <span class="visually-hidden">Add a layer</span>
      <select v-model="wanted" class="form-select" name="add-layer" @change="add">
        <option value="">Add a layer</option>
        <option v-for="{ slot, name } in free" :key="slot" :value="slot">{{ name }}</option>
      </select>
    </label>
    <details v-if="barred.length > 0">
      <summary>Why others can’t be added</summary>
      <ul>
        <li v-for="{ slot, name, why } in barred" :key="slot">
          <strong>{{ name }}</strong>: {{ why }}
        </li>
      </ul>
    </details>
  </div>
</template>

<style scoped>
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: start;
  margin-bottom: 12px;
}
.form-select {
  width: auto;
}
details {
  flex: 1 1 200px;
  padding-top: 10px;
}
ul {
  margin: 4px 0 0;
  padding-left: 18px;
  color: var(--peat-soft);
  font-size: 0.9375rem;
}
</style>
