<script setup lang="ts">
import { BDropdown, BDropdownItemButton } from 'bootstrap-vue-next/components/BDropdown';
import { computed } from 'vue';

import type { SlotState } from '@/api/types';
import { useShipment } from '@/shipment/useShipment';

const { slots } = defineProps<{ slots: SlotState[] }>();
const emit = defineEmits<{ added: [slot: string] }>();
const { choose } = useShipment();

const absent = computed(() => slots.filter(({ present }) => !present));
const free = computed(() => absent.value.filter((slot) => slot.free));
const barred = computed(() => absent.value.filter((slot) => !slot.free));

function add(slot: string): void {
  choose({ layers: { [slot]: true } });
  emit('added', slot);
}
</script>

<template>
  <div class="add no-print">
    <BDropdown v-if="free.length > 0" data-test="add-layer" text="Add a layer">
      <BDropdownItemButton
        v-for="{ slot, name } in free"
        :key="slot"
        :data-slot-name="slot"
        @click="add(slot)"
      >
        {{ name }}
      </BDropdownItemButton>
    </BDropdown>
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
