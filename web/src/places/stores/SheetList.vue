<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import { vSay } from '@/said/say';
import { measured, readNumber } from '@/units/measured';
import { withPoint } from '@/units/typed';

interface Sheet {
  width_mm: number;
  height_mm: number;
  thickness_mm?: number;
  price: string;
}

const { sheets, thick, errors } = defineProps<{
  sheets: Sheet[];
  /** Whether a sheet has a thickness of its own. */
  thick: boolean;
  errors: Record<string, string>;
}>();
const emit = defineEmits<{ set: [sheets: Sheet[]] }>();

const COLUMNS = [
  { key: 'width_mm', name: 'Width' },
  { key: 'height_mm', name: 'Height' },
  { key: 'thickness_mm', name: 'Thickness' },
] as const;

const read = computed(() => measured('mm'));
const shown = (side: number | undefined) =>
  typeof side === 'number' && Number.isFinite(side) ? read.value.shown(side) : side;

function put(place: number, key: keyof Sheet, text: string): void {
  const value = key === 'price' ? withPoint(text) : read.value.kept(readNumber(text));
  emit(
    'set',
    sheets.map((sheet, at) => (at === place ? { ...sheet, [key]: value } : sheet)),
  );
}

function add(): void {
  const sheet: Sheet = { width_mm: 1200, height_mm: 800, price: '0.00' };
  emit('set', [...sheets, thick ? { ...sheet, thickness_mm: 25 } : sheet]);
}

const errorAt = (place: number) =>
  Object.entries(errors).find(([field]) => field.startsWith(`sheets.${place}.`))?.[1];
</script>

<template>
  <fieldset>
    <legend>Sheets it is sold in</legend>
    <div v-for="(sheet, place) in sheets" :key="place" class="sheet">
      <template v-for="{ key, name } in COLUMNS" :key="key">
        <label v-if="key !== 'thickness_mm' || thick">
          <span>{{ name }}, {{ read.unit }}</span>
          <input
            class="form-control"
            inputmode="decimal"
            :value="shown(sheet[key])"
            @change="put(place, key, ($event.target as HTMLInputElement).value)"
          />
        </label>
      </template>
      <label>
        <span>Price</span>
        <input
          class="form-control"
          :value="sheet.price"
          @change="put(place, 'price', ($event.target as HTMLInputElement).value)"
        />
      </label>
      <BButton
        size="sm"
        variant="link"
        @click="
          emit(
            'set',
            sheets.filter((_, at) => at !== place),
          )
        "
        >Delete</BButton
      >
      <p v-if="errorAt(place)" v-say class="error">{{ errorAt(place) }}</p>
    </div>
    <BButton size="sm" @click="add">Add a sheet size</BButton>
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
.sheet {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
  margin-bottom: 6px;
}
.sheet label {
  flex: 1 1 76px;
}
.sheet span {
  color: var(--peat-soft);
  font-size: var(--type-small);
}
.form-control {
  min-height: 44px;
  padding: 4px 8px;
}
.error {
  flex-basis: 100%;
  margin: 0;
  color: var(--rowan);
}
</style>
