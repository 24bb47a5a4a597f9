<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormCheckboxGroup } from 'bootstrap-vue-next/components/BFormCheckbox';
import { BFormRadioGroup } from 'bootstrap-vue-next/components/BFormRadio';
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';

import type { CutTool, LayoutOf } from '@/api/types';
import SheetLayout from '@/drawing/SheetLayout.vue';
import DrawingLinks from '@/parts/DrawingLinks.vue';
import TextField from '@/parts/TextField.vue';
import { vSay } from '@/said/say';
import { grams } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import { cutWords, letterOf, partName } from './cuts';
import { layOut } from './layOut';
import { ROUNDS, useCutting } from './useCutting';

const { id } = defineProps<{ id: string }>();
const route = useRoute();
const router = useRouter();
const units = useUnits();
const { cutting, away, refused, trouble, busy, round, again, look, stop, cut, notCut } = useCutting(() => id);

const OF: { value: LayoutOf; text: string }[] = [
  { value: 'all', text: 'All parts' },
  { value: 'inner', text: 'What goes inside' },
  { value: 'boxes', text: 'The boxes' },
];
const TOOLS: { value: CutTool; text: string }[] = [
  { value: 'knife', text: 'Knife' },
  { value: 'saw', text: 'Saw' },
];

const sheets = computed(() => cutting.value?.laid.materials.flatMap(({ sheets: of }) => of) ?? []);
const wanted = computed(() => Number(route.query.sheet) || 1);
const sheet = computed(() => sheets.value.find(({ n }) => n === wanted.value) ?? sheets.value[0]);
const material = computed(() =>
  cutting.value?.laid.materials.find(({ sheets: of }) => of.some(({ n }) => n === sheet.value?.n)),
);
const done = computed(() => cutting.value?.done.find(({ n }) => n === sheet.value?.n));
const begun = computed(() => (cutting.value?.done.length ?? 0) > 0);
/** Whose parts there are; what was drawn elsewhere stands after the last shipment. */
const groups = computed(() => [
  ...(cutting.value?.shipments.map(({ title }) => title || 'Untitled') ?? []),
  ...((cutting.value?.blanks.length ?? 0) > 0 ? ['drawn elsewhere'] : []),
]);
const several = computed(() => groups.value.length > 1);
const titles = computed(() =>
  [
    ...(cutting.value?.shipments.map(({ title }) => title || 'Untitled') ?? []),
    ...(cutting.value?.blanks.map(({ name, count, mass_g }) => `${count} × ${name}, ${grams(mass_g)} each`) ??
      []),
  ].join(', '),
);
const changed = computed(() => cutting.value?.shipments.filter((one) => one.changed) ?? []);
const unmeasured = computed(() => cutting.value?.shipments.filter((one) => !one.wrapped) ?? []);
const tooLarge = computed(() =>
  (cutting.value?.laid.materials ?? []).flatMap(({ name, too_large }) =>
    too_large.map((part) => ({ ...part, of: name })),
  ),
);
const joined = computed(() => sheets.value.some(({ parts }) => parts.some((part) => part.joined)));
const money = computed(
  () => `${Number(cutting.value?.laid.cost ?? 0).toFixed(2)} ${cutting.value?.currency ?? ''}`,
);
const over = computed(() => {
  const gap = cutting.value?.gap;
  if (gap === null || gap === undefined) return '';
  if (gap < 0.005) return 'no layout costs less';
  // Beyond that it says more about the bound than about the layout.
  return gap <= 0.25
    ? `at most ${(gap * 100).toFixed(0)} % over the least possible`
    : 'a cheaper layout may exist';
});
const opened = computed(() => {
  const [all, fresh] = [sheets.value.length, sheets.value.filter(({ offcut }) => !offcut).length];
  const of = all === 1 ? 'sheet' : 'sheets';
  return fresh === all ? `${all} new ${of}` : `${all} ${of}, ${fresh} of them new`;
});

/** Strips narrower than this are not asked for. */
const LEAST_KEPT_MM = 60;
/** What of the rest is kept, as long as the sheet is not cut. */
const keep = ref<string[]>([]);
const place = ref('');
watch(
  sheet,
  (now, before) => {
    if (now?.n === before?.n && JSON.stringify(now) === JSON.stringify(before)) return;
    keep.value = (now?.rest ?? []).flatMap(({ worth_keeping }, at) => (worth_keeping ? [String(at)] : []));
  },
  { immediate: true },
);
const kept = computed(() => (done.value ? [] : keep.value.map(Number)));
const rests = computed(() =>
  (sheet.value?.rest ?? [])
    .map((piece, at) => ({
      value: String(at),
      text: units.size(piece.width_mm, piece.height_mm),
      least: Math.min(piece.width_mm, piece.height_mm),
    }))
    .filter(({ least }) => least >= LEAST_KEPT_MM),
);

const to = (n: number) => ({ query: { ...route.query, sheet: String(n) } });
async function isCut(): Promise<void> {
  const now = sheet.value;
  if (!now || !(await cut(now.n, keep.value.map(Number), place.value))) return;
  const next = sheets.value.find(({ n }) => cutting.value?.done.every((one) => one.n !== n) && n > now.n);
  if (next) await router.replace(to(next.n));
}
/** The boxes of the same shipments, in a layout of their own: made from what the wrapped pieces measure by then. */
async function boxes(): Promise<void> {
  trouble.value = '';
  try {
    await router.push(await layOut(cutting.value?.shipments.map((one) => one.id) ?? [], 'boxes'));
  } catch (error) {
    trouble.value = error instanceof Error ? error.message : 'something went wrong in the page';
  }
}
const print = () => window.print();
</script>

<template>
  <div class="page">
    <div class="heading-row">
      <h1>{{ several ? 'Cut together' : 'Cut' }}</h1>
      <span class="soft">{{ titles }}</span>
    </div>
    <p v-if="away" v-say class="soft">The layout can’t be reached. Trying again.</p>
    <p v-else-if="refused">
      There is no such layout. <RouterLink to="/tools/cutting">All layouts</RouterLink>
    </p>
    <p v-else-if="!cutting" class="soft">Opening the layout</p>
    <template v-else>
      <p class="sum figure" data-test="layout-sum">
        {{ opened }}:
        <strong>{{ money }}</strong>
        <span v-if="over" class="soft">, {{ over }}</span>
      </p>
      <div class="ways no-print">
        <BFormRadioGroup
          v-if="cutting.shipments.length > 0"
          :model-value="cutting.of"
          :options="OF"
          buttons
          size="sm"
          name="layout-of"
          aria-label="Which parts"
          :disabled="begun || busy"
          @update:model-value="(of) => again({ of: of as LayoutOf })"
        />
        <BFormRadioGroup
          :model-value="cutting.tool"
          :options="TOOLS"
          buttons
          size="sm"
          name="tool"
          aria-label="What cuts"
          :disabled="begun || busy"
          @update:model-value="(tool) => again({ tool: tool as CutTool })"
        />
        <BButton v-if="round === undefined" size="sm" :disabled="begun || busy" @click="look">
          Look for a cheaper layout
        </BButton>
        <span v-else v-say class="looking" data-test="looking">
          <progress :max="ROUNDS" :value="round" /> {{ money }} so far
          <BButton size="sm" @click="stop">Stop, and keep it</BButton>
        </span>
        <BButton v-if="cutting.of === 'inner'" size="sm" :disabled="busy" @click="boxes">
          Then lay out the boxes
        </BButton>
        <BButton size="sm" @click="print">Print the cut list</BButton>
        <a class="btn btn-sm" :href="`/api/v1/cuttings/${id}/list.csv`" download>Save it as CSV</a>
      </div>
      <p v-if="trouble" v-say class="notice">{{ trouble }}</p>
      <p v-if="changed.length > 0" v-say class="notice" data-test="changed">
        The plan of {{ changed.map(({ title }) => `“${title || 'Untitled'}”`).join(', ') }} has changed since.
        <BButton v-if="!begun" size="sm" @click="again()">Lay out anew</BButton>
        <span v-else>Take back what is marked as cut, to lay it out anew.</span>
      </p>
      <p v-if="cutting.of === 'boxes' && unmeasured.length > 0" class="soft">
        {{ unmeasured.map(({ title }) => title || 'Untitled').join(', ') }}: not measured wrapped yet, so the
        box is cut by the sums.
        <RouterLink
          v-for="one in unmeasured"
          :key="one.id"
          class="measure no-print"
          :to="`/shipments/${one.id}/box`"
          >Measure {{ one.title || 'it' }}</RouterLink
        >
      </p>
      <ul v-if="cutting.lacks.length > 0" v-say class="notice plain" data-test="lacks">
        <li v-for="lack in cutting.lacks" :key="`${lack.name} ${lack.width_mm}`">
          {{ lack.name }} {{ units.size(lack.width_mm, lack.height_mm) }}: {{ lack.needs }} to open,
          {{ lack.left }} on the shelf.
        </li>
      </ul>
      <ul v-if="tooLarge.length > 0" class="notice plain">
        <li v-for="(part, at) in tooLarge" :key="at">
          {{ part.layer }}, {{ units.size(part.width_mm, part.height_mm) }}: larger than every sheet of
          {{ part.of }}, even in parts. Put a larger sheet among the materials, or choose another board.
        </li>
      </ul>
      <p v-if="sheets.length === 0" class="soft">There is nothing to cut from sheets here.</p>
      <nav v-if="sheets.length > 0" class="sheets" aria-label="Sheets">
        <span v-for="of in cutting.laid.materials" :key="`${of.material}${of.thickness_mm}`" class="group">
          <span v-if="of.sheets.length > 0" class="soft">{{ of.name }}</span>
          <RouterLink
            v-for="one in of.sheets"
            :key="one.n"
            :to="to(one.n)"
            replace
            class="btn btn-sm"
            :class="{ here: one.n === sheet?.n }"
            :aria-current="one.n === sheet?.n ? 'true' : undefined"
            >{{ one.n }}{{ cutting.done.some(({ n }) => n === one.n) ? ' ✓' : '' }}</RouterLink
          >
        </span>
      </nav>
      <div v-if="sheet && material" class="sheet" :data-sheet="sheet.n">
        <section class="picture panel">
          <h2>
            Sheet {{ sheet.n }}:
            {{ sheet.offcut ? sheet.offcut.name || 'an offcut' : `new ${material.name}` }}
          </h2>
          <p class="soft">
            {{ material.name }}, {{ units.size(sheet.width_mm, sheet.height_mm)
            }}{{ sheet.offcut?.place ? `, ${sheet.offcut.place}` : '' }}. Flutes run up. Measure from the
            lower left corner.
          </p>
          <SheetLayout :sheet="sheet" :kept="kept" />
          <DrawingLinks :of="`/api/v1/cuttings/${id}/drawings`" :part="sheet.n" :what="`sheet ${sheet.n}`" />
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
            <BButton size="sm" :disabled="busy" @click="notCut(sheet.n)">Not cut: take it back</BButton>
          </div>
          <div v-else class="no-print">
            <template v-if="rests.length > 0">
              <h2 id="keep">Keep of the rest</h2>
              <BFormCheckboxGroup
                v-model="keep"
                :options="rests"
                name="keep"
                stacked
                aria-labelledby="keep"
              />
            </template>
            <TextField
              v-if="keep.length > 0"
              v-model="place"
              label="Put it"
              name="place"
              hint="as: behind the rack"
            />
            <BButton variant="primary" :disabled="busy" @click="isCut">Sheet {{ sheet.n }} is cut</BButton>
          </div>
        </section>
      </div>
      <p v-if="joined" class="soft">
        Joined: larger than every sheet, so it is cut in parts that lap and are taped. A joined wall bears
        less in a stack; Guard counts it.
      </p>
      <p v-if="several" class="soft no-print">
        <span v-for="(one, at) in cutting.shipments" :key="one.id" class="legend">
          <strong>{{ letterOf(at) }}</strong>
          <RouterLink :to="`/shipments/${one.id}/box`">{{ one.title || 'Untitled' }}</RouterLink>
        </span>
      </p>
    </template>
  </div>
</template>

<style scoped>
.page {
  max-width: 1280px;
}
h1 {
  margin: 4px 0;
  font-size: 1.75rem;
}
h2 {
  margin: 8px 0 4px;
  font-size: 1.0625rem;
}
.sum {
  margin: 0 0 6px;
  font-size: 1.125rem;
}
.ways,
.sheets {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  margin-bottom: 8px;
}
.group {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.sheets .btn {
  min-width: 44px;
}
.sheets .here {
  border-color: var(--heather);
  background: var(--lichen);
  font-weight: 700;
}
.looking {
  display: flex;
  gap: 8px;
  align-items: center;
}
.plain {
  padding-left: 12px;
  list-style: none;
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
  font-size: 1.0625rem;
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
  font-size: 0.9375rem;
}
.is-done {
  padding: 8px 12px;
  border-left: 4px solid var(--moss);
  background: var(--lichen);
}
.is-done p {
  margin: 0 0 6px;
}
.legend,
.measure {
  margin-right: 16px;
}
@media (max-width: 900px) {
  .sheet {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
