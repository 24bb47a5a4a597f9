<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormCheckboxGroup } from 'bootstrap-vue-next/components/BFormCheckbox';
import { computed, ref, watch } from 'vue';

import type { Cutting } from '@/api/types';
import SheetLayout from '@/drawing/SheetLayout.vue';
import DrawingLinks from '@/parts/DrawingLinks.vue';
import TextField from '@/parts/TextField.vue';
import { vSay } from '@/said/say';
import { useUnits } from '@/units/useUnits';

import { cutWords, partName } from './cuts';

type Material = Cutting['laid']['materials'][number];

/** One sheet of a layout: drawn, its cuts in their order, its parts, and what is kept of the rest. */
const { cutting, sheet, material, groups, busy } = defineProps<{
  cutting: Cutting;
  sheet: Material['sheets'][number];
  material: Material;
  /** Whose parts there are. */
  groups: string[];
  busy: boolean;
}>();
const emit = defineEmits<{ cut: [keep: number[], place: string]; notCut: [] }>();
const units = useUnits();
const several = computed(() => groups.length > 1);
const done = computed(() => cutting.done.find(({ n }) => n === sheet.n));

/** Strips narrower than this are not asked for. */
const LEAST_KEPT_MM = 60;
/** What of the rest is kept, as long as the sheet is not cut. */
const keep = ref<string[]>([]);
const place = ref('');
watch(
  () => sheet,
  (now, before) => {
    if (now.n === before?.n && JSON.stringify(now) === JSON.stringify(before)) return;
    keep.value = now.rest.flatMap(({ worth_keeping }, at) => (worth_keeping ? [String(at)] : []));
  },
  { immediate: true },
);
const kept = computed(() => (done.value ? [] : keep.value.map(Number)));
const rests = computed(() =>
  sheet.rest
    .map((piece, at) => ({
      value: String(at),
      text: units.size(piece.width_mm, piece.height_mm),
      least: Math.min(piece.width_mm, piece.height_mm),
    }))
    .filter(({ least }) => least >= LEAST_KEPT_MM),
);
</script>

<template>
  <div class="sheet" :data-sheet="sheet.n">
    <section class="picture panel">
      <h2>
        Sheet {{ sheet.n }}:
        {{ sheet.offcut ? sheet.offcut.name || 'an offcut' : `new ${material.name}` }}
      </h2>
      <p class="soft">
        {{ material.name }}, {{ units.size(sheet.width_mm, sheet.height_mm)
        }}{{ sheet.offcut?.place ? `, ${sheet.offcut.place}` : '' }}. Flutes run up. Measure from the lower
        left corner.
      </p>
      <SheetLayout :sheet="sheet" :kept="kept" />
      <DrawingLinks
        :of="`/api/v1/cuttings/${cutting.id}/drawings`"
        :part="sheet.n"
        :what="`sheet ${sheet.n}`"
      />
    </section>
    <section class="lists">
      <h2>Cuts, in this order</h2>
      <ol class="cuts figure">
        <li v-for="one in sheet.cuts" :key="one.n">{{ cutWords(one, sheet, units) }}</li>
      </ol>
      <p v-if="sheet.cuts.length === 0" class="soft">It is used whole.</p>
      <p v-if="cutting.kerf_mm > 0" class="soft">
        The saw takes {{ units.length(cutting.kerf_mm) }} beyond each line.
      </p>
      <h2>Parts</h2>
      <table class="parts figure">
        <tbody>
          <tr v-for="(part, at) in sheet.parts" :key="at">
            <th scope="row">{{ part.code }}</th>
            <td>
              {{ partName(part) }}
              <span v-if="several" class="soft">{{ groups[part.shipment] }}</span>
            </td>
            <td>{{ units.size(part.width_mm, part.height_mm) }}</td>
          </tr>
        </tbody>
      </table>
      <div v-if="done" v-say class="is-done">
        <p>
          <strong>Cut.</strong>
          {{ done.kept.length > 0 ? `Kept: ${done.kept.join(', ')}. Write it on.` : 'Nothing was kept.' }}
        </p>
        <BButton size="sm" :disabled="busy" @click="emit('notCut')">Not cut: take it back</BButton>
      </div>
      <div v-else class="no-print">
        <template v-if="rests.length > 0">
          <h2 id="keep">Keep of the rest</h2>
          <BFormCheckboxGroup v-model="keep" :options="rests" name="keep" stacked aria-labelledby="keep" />
        </template>
        <TextField
          v-if="keep.length > 0"
          v-model="place"
          label="Put it"
          name="place"
          hint="as: behind the rack"
        />
        <BButton variant="primary" :disabled="busy" @click="emit('cut', keep.map(Number), place)"
          >Sheet {{ sheet.n }} is cut</BButton
        >
      </div>
    </section>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

h2 {
  margin: 8px 0 4px;
  font-size: var(--type-strong);
}
.sheet {
  display: grid;
  grid-template-columns: minmax(0, 1.7fr) minmax(300px, 1fr);
  gap: 16px;
  align-items: start;
}
.picture {
  padding: 4px 12px 8px;
}
.picture p {
  margin: 0;
}
.cuts {
  margin: 0;
  padding-left: 28px;
  font-size: var(--type-strong);
}
.cuts li {
  padding: 2px 0;
}
.parts {
  width: 100%;
  margin-bottom: 8px;
}
.parts th,
.parts td {
  padding: 3px 8px 3px 0;
  border-bottom: 1px solid var(--sedge);
  text-align: left;
  vertical-align: top;
}
.parts td:last-child {
  text-align: right;
  white-space: nowrap;
}
.parts .soft {
  display: block;
  font-size: var(--type-small);
}
.is-done {
  padding: 8px 12px;
  border-left: 4px solid var(--moss);
  background: var(--lichen);
}
.is-done p {
  margin: 0 0 6px;
}
@include at.tablet {
  .sheet {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
