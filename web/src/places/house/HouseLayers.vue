<script setup lang="ts">
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect';
import type { Studio } from '@/api/types';

const { slots } = defineProps<{ slots: Studio['slots'] }>();
const layers = defineModel<Record<string, boolean>>({ required: true });

/** What the job always asks for, or what comes with another layer, is no choice of a house. */
const SETTLED = ['contact', 'bundle', 'folio', 'roll', 'box', 'second_fill'];
/** What goes in is listed below, by kind of piece. */
const isListed = (slot: string) => slot.endsWith('_papers');
const WAYS = [
  { value: '', text: 'where the job suggests it' },
  { value: 'true', text: 'always, where it may be' },
  { value: 'false', text: 'never, unless a shipment adds it' },
];

function set(slot: string, way: string): void {
  const next = { ...layers.value };
  if (way === '') Reflect.deleteProperty(next, slot);
  else next[slot] = way === 'true';
  layers.value = next;
}

const way = (slot: string) => (layers.value[slot] === undefined ? '' : String(layers.value[slot]));
</script>

<template>
  <section>
    <h2>Layers that every plan has</h2>
    <p class="soft">A layer that could harm a piece is always left out.</p>
    <div class="layers">
      <label
        v-for="{ slot, name } in slots.filter((one) => !SETTLED.includes(one.slot) && !isListed(one.slot))"
        :key="slot"
      >
        <span>{{ name }}</span>
        <BFormSelect
          :name="`layers.${slot}`"
          :value="way(slot)"
          @change="set(slot, ($event.target as HTMLSelectElement).value)"
        >
          <option v-for="choice in WAYS" :key="choice.value" :value="choice.value">{{ choice.text }}</option>
        </BFormSelect>
      </label>
    </div>
  </section>
</template>

<style scoped lang="scss">
@use '@/styles/at';

h2 {
  margin: 20px 0 0;
  font-size: var(--type-lead);
}
.layers {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(380px, 1fr));
  gap: 4px 20px;
}
label {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 236px;
  gap: 8px;
  align-items: center;
}
span::first-letter {
  text-transform: uppercase;
}
.form-select {
  min-height: 44px;
  padding-block: 3px;
  font-size: var(--type-small);
}
@include at.phone {
  .layers {
    grid-template-columns: minmax(0, 1fr);
  }
  label {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
  }
}
</style>
