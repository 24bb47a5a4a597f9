<script setup lang="ts">
import { computed } from 'vue';

import type { Measure } from '@/api/types';
import MaterialBand from '@/drawing/MaterialBand.vue';
import { boardPattern, wrapPattern } from '@/drawing/band';
import type { Band, Pattern } from '@/drawing/band';

import { measured } from '@/units/measured';

import { amount } from '../shelf/amounts';
import { partOf } from './shelves';
import type { Field, Material, Shelf } from './shelves';

const { shelf, materials, there, chosen } = defineProps<{
  shelf: Shelf;
  materials: Material[];
  /** How much of each is there, by its id. */
  there: ReadonlyMap<string, { left: number; measure: Measure }>;
  chosen?: string;
}>();
const emit = defineEmits<{ edit: [material: Material] }>();

const listed = computed(() => shelf.fields.filter((field) => field.listed));
const hasSheets = computed(() => shelf.fields.some(({ kind }) => kind === 'sheets'));
const hasCurve = computed(() => shelf.fields.some(({ kind }) => kind === 'curve'));

function patternOf(material: Material): Pattern {
  switch (shelf.key) {
    case 'contact_papers':
      return 'contact';
    case 'boards':
      return boardPattern(material.id);
    case 'cushion_wraps':
      return wrapPattern(material.id);
    case 'foams':
      return 'foam';
    case 'fills':
      return 'fill';
    case 'films':
      return 'film';
    case 'tapes':
      return 'tape';
    default:
      return 'card';
  }
}

function swatch(material: Material): Band {
  const pattern = patternOf(material);
  const thin = pattern === 'contact' || pattern === 'film';
  return {
    x: 1,
    y: thin ? 8 : 2,
    width: 38,
    height: thin ? 4 : 16,
    pattern,
    outward: 'up',
    turns: thin ? 1 : 2,
  };
}

function shown(material: Material, field: Field): string {
  const value = partOf(material, field.key);
  if (value === undefined || value === null) return '–';
  if (typeof value === 'number') return String(measured(field.unit).shown(value));
  return field.choices?.find((choice) => choice.value === value)?.text ?? String(value);
}

function sheets(material: Material): string {
  const list = (material.sheets ?? []) as {
    width_mm: number;
    height_mm: number;
    thickness_mm?: number;
    price: string;
  }[];
  return list
    .map(
      (one) =>
        [one.width_mm, one.height_mm, one.thickness_mm]
          .filter((side) => side !== undefined)
          .map((side) => measured('mm').shown(side))
          .join(' × ') + ` at ${one.price}`,
    )
    .join('; ');
}

function curve(material: Material): string {
  const known = material.curve as { a_kpa: number; b_m3_per_kj: number } | undefined;
  return known ? `${+known.a_kpa.toPrecision(4)} · ${+known.b_m3_per_kj.toPrecision(3)}` : '–';
}

function stock({ id }: Material): string {
  const counted = there.get(id);
  return counted ? amount(counted.left, counted.measure) : '–';
}
const flag = (material: Material, key: string) => partOf(material, `shelf.${key}`) === true;
</script>

<template>
  <div>
    <table class="figure stacked">
      <thead>
        <tr>
          <th scope="col" colspan="2">{{ shelf.name }}</th>
          <th v-for="field in listed" :key="field.key" scope="col" class="number">
            {{ field.label }}<span v-if="field.unit" class="soft">, {{ measured(field.unit).unit }}</span>
          </th>
          <th v-if="hasCurve" scope="col" class="number">a, kPa · b, m³/kJ</th>
          <th v-if="hasSheets" scope="col">Sheets, {{ measured('mm').unit }}</th>
          <th scope="col" class="number">In stock</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="material in materials"
          :key="material.id"
          :class="{ chosen: material.id === chosen, retired: flag(material, 'retired') }"
          :data-material="material.id"
        >
          <td class="swatch">
            <svg width="40" height="20" aria-hidden="true"><MaterialBand :band="swatch(material)" /></svg>
          </td>
          <td>
            <button type="button" @click="emit('edit', material)">{{ material.name }}</button>
            <span v-if="flag(material, 'reused')" class="soft">saved</span>
            <span v-if="flag(material, 'retired')" class="soft">retired</span>
            <span v-if="flag(material, 'to_check')" class="soft unsure">check price</span>
          </td>
          <td
            v-for="field in listed"
            :key="field.key"
            class="number"
            :data-is="`${field.label}${field.unit ? `, ${measured(field.unit).unit}` : ''}`"
          >
            {{ shown(material, field) }}
          </td>
          <td v-if="hasCurve" class="number" data-is="a, kPa · b, m³/kJ">{{ curve(material) }}</td>
          <td v-if="hasSheets" class="sheets" :data-is="`Sheets, ${measured('mm').unit}`">
            <span>{{ sheets(material) }}</span>
          </td>
          <td class="number" data-is="In stock">{{ stock(material) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="materials.length === 0" class="soft">No materials of this class yet.</p>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

table {
  width: 100%;
  border-collapse: collapse;
  font-size: var(--type-small);
}
.unsure {
  color: var(--amber-moss);
  white-space: nowrap;
}
th {
  position: sticky;
  top: 0;
  padding: 4px 8px;
  border-bottom: 1px solid var(--peat);
  background: var(--bog-cotton);
  font-weight: 600;
  text-align: left;
  vertical-align: bottom;
}
th .soft {
  font-weight: 400;
}
td {
  padding: 3px 8px;
  border-bottom: 1px solid var(--sedge);
}
.number {
  text-align: right;
}
.sheets {
  min-width: 240px;
}
.swatch {
  width: 48px;
  line-height: 0;
}
button {
  min-height: 44px;
  padding: 2px 4px;
  border: 0;
  background: none;
  color: var(--water);
  font-weight: 600;
  text-align: left;
  text-decoration: underline;
}
td .soft {
  margin-left: 6px;
  font-size: var(--type-small);
}
.chosen {
  background: var(--lichen);
}
.retired {
  color: var(--peat-soft);
}
@include at.phone {
  tr > .swatch.swatch,
  tr > .swatch.swatch + td {
    display: inline-block;
    vertical-align: middle;
  }
  .sheets > span {
    flex: 1;
    min-width: 0;
  }
}
</style>
