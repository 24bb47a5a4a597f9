<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormRadioGroup } from 'bootstrap-vue-next/components/BFormRadio';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';

import type { BoxSum, SheetNeed } from '@/api/types';
import BlankDrawing from '@/drawing/BlankDrawing.vue';
import FoldPlay from '@/drawing/FoldPlay.vue';
import { capital } from '@/words/grammar';
import { boxName } from '@/words/layers';
import { BOX_SEALS } from '@/words/vocabulary';
import { useNextStep } from '@/frame/foot';
import DrawingLinks from '@/parts/DrawingLinks.vue';
import DraftField from '@/parts/DraftField.vue';
import { useShipment } from '@/shipment/useShipment';
import { useHouse } from '@/stops/guard/useHouse';
import { useUnits } from '@/units/useUnits';

import BoughtBox from './BoughtBox.vue';
import BoxActs from './BoxActs.vue';
import BoughtList from './BoughtList.vue';
import CaseBox from './CaseBox.vue';
import CutList from './CutList.vue';
import FromTheShelf from './FromTheShelf.vue';
import OwnFirst from './OwnFirst.vue';
import KeptCases from './KeptCases.vue';
import SavedCarton from './SavedCarton.vue';
import SealPlan from './SealPlan.vue';
import StyleCards from './StyleCards.vue';
import TubeBox from './TubeBox.vue';
import WrappedMeasure from './WrappedMeasure.vue';

const { id, draft, kept, plan, summary, fingerprint, save } = useShipment();
const house = useHouse();
const units = useUnits();
const router = useRouter();

/** Of two boxes the one that is looked at; the second, which is seen from outside, at first. */
const which = ref<'box' | 'second_box'>('second_box');
const BOXES = [
  { value: 'box', text: 'first box' },
  { value: 'second_box', text: 'second box' },
];
const twice = computed(() => plan.value?.layers.some(({ slot }) => slot === 'second_box'));
const place = computed(() => (twice.value ? which.value : 'box'));
const layer = computed(() => plan.value?.layers.find(({ slot }) => slot === place.value));
const carton = computed(() => {
  const make = layer.value?.make;
  return make?.kind === 'slotted_box' || make?.kind === 'cut_box' ? make : undefined;
});
/** Whether the box's length lies up the piece. */
const longUp = computed(() => {
  const { inside_length_mm: long = 0, inside_width_mm: wide = 0 } = carton.value ?? {};
  const { across_mm = 0, up_mm = 0 } = layer.value?.envelope ?? {};
  return across_mm <= up_mm === long >= wide;
});
/** Inside as the parcel is told outside: across, up and through. */
const inside = computed((): [number, number, number] => {
  const {
    inside_length_mm: long = 0,
    inside_width_mm: wide = 0,
    inside_height_mm: deep = 0,
  } = carton.value ?? {};
  return longUp.value ? [wide, long, deep] : [long, wide, deep];
});
const parts = computed(() => {
  const made = carton.value;
  return made ? [{ blank: made.blank, sheet: made.sheet, joined: made.joined }, ...made.more_parts] : [];
});
/** As they are cut: whole, or part by part where no sheet takes one whole. */
const blanks = computed(() =>
  parts.value.flatMap(({ blank, sheet, joined }) =>
    (joined?.length ? joined : [blank]).map((cut) => ({
      blank: cut,
      sheet,
      name: cut.joined ? `${cut.part}, part ${cut.joined.n} of ${cut.joined.of}` : cut.part,
    })),
  ),
);
/** What stands in place of a box that is cut. */
const bought = computed(() => {
  const kind = layer.value?.make.kind;
  if (kind === 'bought_box' || kind === 'saved_box') return 'carton';
  if (kind === 'sandwich') return 'sleeve';
  if (kind === 'travel_case') return 'case';
  return kind === 'mailer' ? 'mailer' : undefined;
});
/** Whether a box could be cut for it. */
const padded = computed(() => plan.value?.carriage === 'padded');
const cut = computed(
  () => padded.value || plan.value?.carriage === 'flat' || plan.value?.carriage === 'folio',
);
function sheetWords(need: SheetNeed): string {
  if (need.kind === 'no_sheet')
    return 'no sheet among the materials is large enough, even joined at its scores';
  const size = units.size(need.sheet.width_mm, need.sheet.height_mm);
  if (need.kind === 'one') return `one sheet ${size}`;
  const joined = need.parts.map((part) => units.size(part.width_mm, part.height_mm)).join(' and ');
  return `${need.sheets === 1 ? 'one sheet' : `${need.sheets} sheets`} ${size}, in parts of ${joined}`;
}
const VIEWS = [
  { value: 'net', text: 'Net' },
  { value: 'cuts', text: 'Cut list' },
  { value: 'seal', text: 'Seal' },
  { value: 'steps', text: 'Steps' },
] as const;
/** One at a time on a screen; on paper all of them. */
const view = ref<(typeof VIEWS)[number]['value']>('net');
const folds = ref(false);
const box = computed((): BoxSum => {
  const made = carton.value;
  return {
    style: (made?.style ?? 'slotted_edge').replaceAll('_', '-') as BoxSum['style'],
    length_mm: made?.inside_length_mm ?? 0,
    width_mm: made?.inside_width_mm ?? 0,
    height_mm: made?.inside_height_mm ?? 0,
    caliper_mm: made?.caliper_mm ?? 0,
    // By the studio's own rules, where it has any tab or slot.
    ...(made && made.tab_mm > 0 ? { tab_mm: made.tab_mm, slot_mm: made.slot_mm } : {}),
  };
});
async function settle(): Promise<void> {
  draft.settled.box = fingerprint.value;
  await save();
  await router.push({ name: 'price', params: { id } });
}

useNextStep(() => ({
  verb: layer.value
    ? { text: 'Continue to Price', press: settle }
    : { text: 'Measure it first', to: { name: 'measure', params: { id } } },
}));
</script>

<template>
  <div>
    <template v-if="cut">
      <BFormRadioGroup
        v-if="twice"
        v-model="which"
        class="which"
        :options="BOXES"
        buttons
        size="sm"
        name="which-box"
        aria-label="Which box"
      />
      <OwnFirst v-if="place === 'box'" />
      <StyleCards :place="place" />
      <div v-if="place === 'box'" class="or">
        <BoughtList />
        <SavedCarton />
        <KeptCases />
      </div>
    </template>
    <div v-if="carton && summary && layer">
      <div class="box">
        <section>
          <h2>{{ boxName(layer, carton.style) }}</h2>
          <p>{{ layer.why }}</p>
          <DraftField
            v-if="place === 'second_box'"
            path="choices.second_board"
            :codes="house.boxBoards.value"
            empty="As the first box"
          />
          <DraftField
            v-else
            path="choices.box_board"
            label="Board"
            :codes="house.boxBoards.value"
            :empty="`House rule: ${house.boardName(house.materials.value?.box_board)}`"
          />
          <dl class="figure">
            <dt>inside</dt>
            <dd>{{ units.size(...inside) }}</dd>
            <dt>outside</dt>
            <dd>
              {{ units.size(layer.envelope.across_mm, layer.envelope.up_mm, layer.envelope.through_mm) }}
            </dd>
            <dt>board</dt>
            <dd>{{ units.area(layer.area_m2) }}, {{ layer.material_name }}</dd>
            <dt>tape</dt>
            <dd>{{ (layer.tape_mm / 1000).toFixed(1) }} m, {{ BOX_SEALS[carton.style] }}</dd>
          </dl>
          <WrappedMeasure v-if="place === 'box'" />
        </section>
        <section>
          <BFormRadioGroup
            v-model="view"
            class="which no-print"
            :options="[...VIEWS]"
            buttons
            size="sm"
            name="view"
            aria-label="Show"
          />
          <div class="view" :class="{ shown: view === 'net' }" data-test="net">
            <template v-for="part in blanks" :key="part.name">
              <div class="heading-row">
                <h2>{{ capital(part.name) }}, flat, seen from inside</h2>
                <span class="soft figure">
                  {{ units.size(part.blank.width_mm, part.blank.height_mm) }}, flutes upright
                </span>
              </div>
              <div class="panel part"><BlankDrawing :blank="part.blank" /></div>
            </template>
            <DrawingLinks :of="`/api/v1/shipments/${id}/drawings`" what="the blanks" />
            <BButton v-if="!folds" class="no-print fold-it" @click="folds = true">Fold it</BButton>
            <FoldPlay v-else :box="box" />
          </div>
          <div class="view" :class="{ shown: view === 'cuts' }" data-test="cuts">
            <section v-for="part in blanks" :key="part.name" :aria-label="`Cut list, ${part.name}`">
              <h3>Cut list of the {{ part.name }}, running, in {{ units.unit.value }}</h3>
              <p class="soft">{{ sheetWords(part.sheet) }}</p>
              <CutList :blank="part.blank" :slot-mm="carton.slot_mm" :tab-mm="carton.tab_mm" />
            </section>
          </div>
          <div class="view" :class="{ shown: view === 'seal' }" data-test="seal">
            <SealPlan :layer="layer" :seal="carton.seal" :bulge-mm="carton.bulge_mm" :long-up="longUp" />
            <p v-for="caution in layer.cautions" :key="caution" class="soft">{{ caution }}</p>
          </div>
          <div v-if="view === 'steps'" class="view shown" data-test="steps">
            <BoxActs :place="place" />
          </div>
        </section>
      </div>
    </div>
    <TubeBox v-else-if="plan && layer?.make.kind === 'tube'" :plan="plan" :layer="layer" />
    <CaseBox v-else-if="layer?.make.kind === 'travel_case'" :layer="layer" />
    <BoughtBox v-else-if="bought && layer" :layer="layer" :padded="padded" />
    <p v-else class="soft">
      The box follows from the measure.
      <RouterLink :to="{ name: 'measure', params: { id } }">Measure the piece</RouterLink>
    </p>
    <FromTheShelf v-if="plan && !kept" />
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.which {
  margin-bottom: 8px;
}
.or {
  display: flex;
  flex-wrap: wrap;
  gap: 0 32px;
}
.or > :has(details[open]) {
  flex: 1 0 100%;
  min-width: 0;
}
.box {
  display: grid;
  grid-template-columns: 280px minmax(0, 1fr);
  gap: 20px;
  align-items: start;
}
h2 {
  margin: 0 0 4px;
  font-size: var(--type-lead);
}
dl {
  display: grid;
  grid-template-columns: 64px 1fr;
  gap: 4px 12px;
  margin: 0 0 12px;
}
dt {
  color: var(--peat-soft);
  font-weight: 400;
}
dd {
  margin: 0;
}
h3 {
  margin: 12px 0 0;
  font-size: var(--type-strong);
}
.box .soft {
  margin: 0 0 2px;
}
.part {
  margin-bottom: 12px;
}
@media screen {
  .view:not(.shown) {
    display: none;
  }
}
@include at.tablet {
  .box {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
