<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';

import type { FormatSheet } from '@/api/types';
import TextField from '@/parts/TextField.vue';

import OutButton from './OutButton.vue';
import PriceGrid from './PriceGrid.vue';
import { useWrong } from './wrong';

/** Containers that have a price of their own: what they hold, and what each costs. */
const { place, zones, example } = defineProps<{
  /** The service’s. */
  place: string;
  /** The zones of the price list. */
  zones: readonly string[];
  /** The same containers with invented prices. */
  example?: FormatSheet[];
}>();
const formats = defineModel<FormatSheet[]>({ required: true });
const emit = defineEmits<{ newZones: [names: string[]] }>();
const wrong = useWrong();

function add(): void {
  const columns = zones.map((zone) => ({ zone, prices: [''], further: '' }));
  formats.value.push({
    name: '',
    length: '',
    width: '',
    height: '',
    prices: { weights: [''], zones: columns },
  });
}
</script>

<template>
  <div>
    <div v-for="(format, index) in formats" :key="index" class="format">
      <div class="fields">
        <TextField
          v-model="format.name"
          label="Container"
          :name="`${place}/formats/${index}/name`"
          :error="wrong(`${place}/formats/${index}/name`)"
        />
        <TextField
          v-model="format.length"
          label="Length"
          :name="`${place}/formats/${index}/length`"
          :error="wrong(`${place}/formats/${index}/length`)"
        />
        <TextField
          v-model="format.width"
          label="Width"
          :name="`${place}/formats/${index}/width`"
          :error="wrong(`${place}/formats/${index}/width`)"
        />
        <TextField
          v-model="format.height"
          label="Height"
          :name="`${place}/formats/${index}/height`"
          :error="wrong(`${place}/formats/${index}/height`)"
        />
        <OutButton :label="`Take out ${format.name || 'this container'}`" @press="formats.splice(index, 1)" />
      </div>
      <PriceGrid
        v-model="format.prices"
        :place="`${place}/formats/${index}/prices`"
        :name="format.name || 'Container'"
        :zones="zones"
        :example="example?.[index]?.prices"
        @new-zones="emit('newZones', $event)"
      />
    </div>
    <BButton size="sm" @click="add">+ Container with its own price</BButton>
  </div>
</template>

<style scoped>
.format {
  padding: 8px 0;
  border-top: 1px solid var(--sedge);
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(120px, 1fr));
  gap: 4px 12px;
}
</style>
