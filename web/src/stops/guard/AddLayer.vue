<script setup lang="ts">
import { BDropdown, BDropdownGroup, BDropdownItemButton } from 'bootstrap-vue-next/components/BDropdown';
import { computed, ref } from 'vue';

import type { SlotState } from '@/api/types';
import { useShipment } from '@/shipment/useShipment';

const { slots } = defineProps<{ slots: SlotState[] }>();
const emit = defineEmits<{ added: [slot: string] }>();
const { choose, look } = useShipment();
const [menu, reasons] = [ref(false), ref(false)];
look('slots', () => menu.value || reasons.value);

const absent = computed(() => slots.filter(({ present }) => !present));
const free = computed(() => absent.value.filter((slot) => slot.free));

/** Where a layer lies, by the last place of each part of the parcel. */
const PARTS: readonly { name: string; until: SlotState['slot'] }[] = [
  { name: 'Around the piece', until: 'wrap_film' },
  { name: 'In the box', until: 'lining' },
  { name: 'The box, and outside it', until: 'marks' },
];
const groups = computed(() => {
  const place = (slot: SlotState['slot']) => slots.findIndex((state) => state.slot === slot);
  const partOf = (slot: SlotState['slot']) => PARTS.findIndex(({ until }) => place(slot) <= place(until));
  return PARTS.map(({ name }, at) => ({
    name,
    slots: free.value.filter(({ slot }) => partOf(slot) === at),
  })).filter((group) => group.slots.length > 0);
});
const barred = computed(() =>
  absent.value.filter((state) => !state.free && state.slot !== 'stack' && !state.slot.endsWith('_papers')),
);

function add(slot: string): void {
  choose({ layers: { [slot]: true } });
  emit('added', slot);
}
</script>

<template>
  <div class="add no-print">
    <BDropdown
      v-if="free.length > 0"
      v-model="menu"
      data-test="add-layer"
      text="Add a layer"
      menu-class="layers"
    >
      <BDropdownGroup v-for="group in groups" :key="group.name" :header="group.name">
        <BDropdownItemButton
          v-for="{ slot, name } in group.slots"
          :key="slot"
          :data-slot-name="slot"
          @click="add(slot)"
        >
          {{ name }}
        </BDropdownItemButton>
      </BDropdownGroup>
    </BDropdown>
    <details v-if="barred.length > 0" @toggle="reasons = ($event.target as HTMLDetailsElement).open">
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
.add :deep(.layers) {
  max-height: min(70vh, 560px);
  overflow-y: auto;
}
details {
  flex: 1 1 200px;
  padding-top: 10px;
}
ul {
  margin: 4px 0 0;
  padding-left: 18px;
  color: var(--peat-soft);
  font-size: var(--type-small);
}
</style>
