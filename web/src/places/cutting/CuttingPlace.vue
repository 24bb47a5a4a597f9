<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormRadioGroup } from 'bootstrap-vue-next/components/BFormRadio';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';

import type { CutTool, LayoutOf } from '@/api/types';
import { vSay } from '@/said/say';
import { grams } from '@/units/show';

import { letterOf } from './cuts';
import CutSheet from './CutSheet.vue';
import CuttingSays from './CuttingSays.vue';
import { layOut } from './layOut';
import { ROUNDS, useCutting } from './useCutting';

const { id } = defineProps<{ id: string }>();
const route = useRoute();
const router = useRouter();
const { cutting, away, refused, trouble, busy, round, again, look, stop, cut, notCut } = useCutting(() => id);

const OF: { value: LayoutOf; text: string }[] = [
  { value: 'all', text: 'All parts' },
  { value: 'inner', text: 'Inner parts' },
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

const to = (n: number) => ({ query: { ...route.query, sheet: String(n) } });
async function isCut(keep: number[], place: string): Promise<void> {
  const now = sheet.value;
  if (!now || !(await cut(now.n, keep, place))) return;
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
          aria-label="Cutting tool"
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
      <CuttingSays :cutting="cutting" :begun="begun" @again="again()" />
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
      <CutSheet
        v-if="sheet && material"
        :key="sheet.n"
        :cutting="cutting"
        :sheet="sheet"
        :material="material"
        :groups="groups"
        :busy="busy"
        @cut="isCut"
        @not-cut="notCut(sheet.n)"
      />
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
  font-size: var(--type-title);
}
.sum {
  margin: 0 0 6px;
  font-size: var(--type-strong);
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
.legend {
  margin-right: 16px;
}
</style>
