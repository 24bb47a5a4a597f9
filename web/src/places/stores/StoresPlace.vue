<script setup lang="ts">
import { useLeaveGuard } from '@/asking/useLeaveGuard';
import PlusIcon from '~icons/tabler/plus';

import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';

import type { Measure } from '@/api/types';
import { useStudio } from '@/api/useStudio';
import { counted } from '@/words/grammar';
import { vSay } from '@/said/say';

import { useShelf } from '../shelf/useShelf';
import CurveImport from './CurveImport.vue';
import MaterialEditor from './MaterialEditor.vue';
import { emptyMaterial, partOf, SHELVES, withPart } from './shelves';
import type { Material } from './shelves';
import MaterialsHead from '../MaterialsHead.vue';
import PlansFollow from '../PlansFollow.vue';
import ShelfTable from './ShelfTable.vue';
import TableImport from './TableImport.vue';
import { useStores } from './useStores';

const { shelf: wanted } = defineProps<{ shelf?: string }>();

const stores = useStores();
const shelf = computed(() => SHELVES.find(({ key }) => key === wanted) ?? SHELVES[0]);
const materials = computed(
  () => (shelf.value ? (stores.stores.value?.catalogue[shelf.value.key] ?? []) : []) as unknown as Material[],
);
const edited = ref<Material>();
const isNew = ref(false);
/** The material as it was opened. */
const opened = ref('');
const changed = computed(() => panel.value === 'material' && JSON.stringify(edited.value) !== opened.value);
/** Counts up with each material that is opened, so that none shows what was typed for another. */
const turn = ref(0);
const panel = ref<'material' | 'table' | 'points'>();

watch(shelf, () => {
  edited.value = undefined;
  panel.value = undefined;
});

function edit(material: Material): void {
  edited.value = JSON.parse(JSON.stringify(material)) as Material;
  opened.value = JSON.stringify(edited.value);
  isNew.value = false;
  turn.value += 1;
  panel.value = 'material';
  stores.errors.value = {};
  stores.take();
}

/** An address may name a material, as a plan does whose price is missing: it is opened once. */
const route = useRoute();
const named = computed(() => materials.value.find(({ id }) => `#${id}` === route.hash));
watch(
  () => named.value?.id,
  () => {
    if (named.value) edit(named.value);
  },
  { immediate: true },
);

function begin(): void {
  if (!shelf.value) return;
  edited.value = emptyMaterial(shelf.value);
  opened.value = JSON.stringify(edited.value);
  isNew.value = true;
  turn.value += 1;
  panel.value = 'material';
  stores.errors.value = {};
  stores.take();
}

function show(what: 'table' | 'points'): void {
  panel.value = what;
  stores.take();
}

/** Whoever keeps a material has looked at its price. */
async function save(material: Material): Promise<void> {
  const looked = withPart(material, 'shelf.to_check', undefined);
  if (!shelf.value || !(await stores.put(shelf.value.key, looked))) return;
  panel.value = undefined;
}

async function remove(id: string): Promise<void> {
  if (!shelf.value || !(await stores.remove(shelf.value.key, id))) return;
  panel.value = undefined;
}

const { studio } = useStudio();
/** How much of each material is there, as it was counted last: of a board in several sizes all sheets. */
const { items } = useShelf();
const there = computed(() => {
  const sums = new Map<string, { left: number; measure: Measure }>();
  for (const item of items.value ?? []) {
    if (item.kind === 'offcut' || item.kind === 'carton' || item.kind === 'case') continue;
    const { material, left, measure } = item;
    sums.set(material, { left: left + (sums.get(material)?.left ?? 0), measure });
  }
  return sums;
});
const taxed = computed(() => (studio.value?.manners.tax?.prices === 'gross' ? 'with tax' : 'without tax'));
/** How many prices came with the program, on all shelves. */
const toCheck = computed(() =>
  SHELVES.reduce((sum, { key }) => {
    const all = (stores.stores.value?.catalogue[key] ?? []) as unknown as Material[];
    return sum + all.filter((one) => partOf(one, 'shelf.to_check') === true).length;
  }, 0),
);

const hasCurve = computed(() => shelf.value?.fields.some(({ kind }) => kind === 'curve') ?? false);
useLeaveGuard(() => (changed.value ? 'what you typed about this material' : undefined));
</script>

<template>
  <div class="page">
    <MaterialsHead here="catalogue" />
    <nav class="shelves no-print" aria-label="Kinds of material">
      <RouterLink
        v-for="one in SHELVES"
        :key="one.key"
        :to="`/materials/${one.key}`"
        :class="{ here: one.key === shelf?.key }"
        :aria-current="one.key === shelf?.key ? 'page' : undefined"
        >{{ one.name }}</RouterLink
      >
    </nav>
    <p v-if="stores.trouble.value" v-say class="trouble">{{ stores.trouble.value }}</p>
    <PlansFollow :version="stores.stores.value?.version ?? 0" />
    <p v-if="toCheck > 0" class="to-check" data-test="to-check">
      {{ counted(toCheck, 'price') }} came with Hummock and {{ toCheck === 1 ? 'is' : 'are' }} to be checked:
      a changed material counts as checked.
      <BButton size="sm" @click="stores.checked">All are correct</BButton>
    </p>
    <p v-if="!stores.stores.value" class="soft">Opening the materials</p>
    <div v-else-if="shelf" class="shelf" :class="{ split: panel }">
      <section>
        <ShelfTable :shelf="shelf" :materials="materials" :there="there" :chosen="edited?.id" @edit="edit" />
        <div class="acts no-print">
          <BButton @click="begin"><PlusIcon aria-hidden="true" /> New {{ shelf.one }}</BButton>
          <a class="btn" :href="`/api/v1/stores/${shelf.key}/table`" download>Save as CSV</a>
          <BButton @click="show('table')">Read in CSV</BButton>
          <BButton v-if="hasCurve" @click="show('points')">Supplier’s cushion points</BButton>
        </div>
        <p class="soft">
          Starting values are typical of each class, not of any brand: weigh a sheet before you rely on one.
          Prices in {{ stores.stores.value.catalogue.currency }}, {{ taxed }}.
        </p>
      </section>
      <MaterialEditor
        v-if="panel === 'material' && edited"
        :key="turn"
        v-model="edited"
        :shelf="shelf"
        :is-new="isNew"
        :errors="stores.errors.value"
        @save="save"
        @remove="remove"
        @close="panel = undefined"
      />
      <TableImport v-else-if="panel === 'table'" :shelf="shelf" :stores="stores" @close="panel = undefined" />
      <CurveImport
        v-else-if="panel === 'points'"
        :shelf="shelf"
        :materials="materials"
        @save="save"
        @close="panel = undefined"
      />
    </div>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.page {
  max-width: 1280px;
}
.shelves {
  display: flex;
  flex-wrap: wrap;
  gap: 0 4px;
  margin-bottom: 12px;
  border-bottom: 2px solid var(--peat);
}
.shelves a {
  min-height: 44px;
  padding: 9px 10px 6px;
  border-bottom: 4px solid transparent;
  color: var(--peat);
  text-decoration: none;
}
.shelves .here {
  border-color: var(--heather);
  font-weight: 600;
}
.shelf.split {
  display: grid;
  grid-template-columns: minmax(0, 1.25fr) minmax(360px, 1fr);
  gap: 24px;
  align-items: start;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 12px 0;
}
.to-check {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
}
.trouble {
  padding: 8px 12px;
  border-left: 4px solid var(--rowan);
  background: var(--paper);
}
@include at.tablet {
  .shelf.split {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
