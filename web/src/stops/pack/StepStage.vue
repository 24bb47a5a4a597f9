<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import type { PackStepView, Plan } from '@/api/types';
import BlankDrawing from '@/drawing/BlankDrawing.vue';
import CradleDrawing from '@/drawing/CradleDrawing.vue';
import CutDownDrawing from '@/drawing/CutDownDrawing.vue';
import CutThrough from '@/drawing/CutThrough.vue';
import MovePicture from '@/drawing/MovePicture.vue';
import PocketDrawing from '@/drawing/PocketDrawing.vue';
import RollDrawing from '@/drawing/RollDrawing.vue';
import TierDrawing from '@/drawing/TierDrawing.vue';
import { partWords } from '@/words/layers';
import { isTape } from '@/words/part';
import DraftField from '@/parts/DraftField.vue';
import PaperLink from '@/parts/PaperLink.vue';
import { FIELDS } from '@/shipment/fields';
import type { FieldPath } from '@/shipment/fields';
import { useShipment } from '@/shipment/useShipment';
import { useUnits } from '@/units/useUnits';

import HandPicture from './HandPicture.vue';
import LaidPile from './LaidPile.vue';
import { layerOf, pieceOf } from './steps';
import { SIGNS, TOOLS } from './tools';
import type { usePacking } from './usePacking';

/** One step in large type: what is done, its sizes, its drawing, and what could hurt. */
const { step, plan, steps, standing } = defineProps<{
  step: PackStepView;
  plan: Plan;
  steps: PackStepView[];
  standing: ReturnType<typeof usePacking>['standing'];
}>();
/** So many letters fill half of the screen. */
const LONG = 220;
const { id, draft, save } = useShipment();
const units = useUnits();

const at = computed(() => plan.layers.findIndex(({ slot }) => slot === step.layer));
const layer = computed(() => layerOf(step, plan));
/** A layer of one piece of several has no place in the cut through all of them. */
const own = computed(() => pieceOf(step, plan));
const make = computed(() => layer.value?.make);
/** The tape of a box is torn in several steps, in each of them its own strips. */
const boxed = computed(() => step.layer === 'box' || step.layer === 'second_box');
/** Of a long step the sentences are smaller, so that all of it stays in view. */
const long = computed(() => step.says.join(' ').length > LONG);
/** Tape that is torn strip by strip is listed so, and not once more by its metres. */
const taken = computed(() =>
  step.strips.length > 0 || boxed.value ? step.parts.filter((part) => !isTape(part)) : step.parts,
);
const parts = computed(() =>
  taken.value.map((part) => partWords(part, layer.value ?? { material: part.material }, units)),
);
/** The lid of a tray is drawn where it is cut and laid, the other parts where they are folded. */
const blanks = computed(() => {
  const it = make.value;
  if ((it?.kind === 'slotted_box' || it?.kind === 'cut_box') && step.key.startsWith('layer/'))
    return [it, ...it.more_parts]
      .flatMap(({ blank, joined }) => (joined?.length ? joined : [blank]))
      .filter((blank) => blank.part !== 'lid');
  return [];
});
/** More sentences than these are lost without a number. */
const MANY_ACTS = 6;
/** Acts that look like something, by the number of their sentence. */
const seen = computed(() =>
  (step.acts ?? []).flatMap(({ picture, says }, at) => (picture ? [{ n: at + 1, picture, says }] : [])),
);
/** Sentences are numbered where pictures are, and where there are many. */
const numbered = computed(() => seen.value.length > 1 || (step.acts ?? []).length > MANY_ACTS);
/** Whether anything is laid yet. */
const lies = computed(() => steps.some((one) => one.layer && standing(one) === 'done'));
/** A step that lays nothing, and has nothing to be seen but the hand. */
const hasPicture = computed(
  () =>
    seen.value.length > 0 ||
    (layer.value !== undefined && (!own.value || make.value?.kind === 'card_pockets')),
);
/** Every danger has its sign, also where the sentence of another one stands. */
const signs = computed(() => step.signs.map((sign) => SIGNS[sign]));
const strips = computed(() =>
  step.strips.map(
    ({ on, count, length_mm, fold_mm, filament }) =>
      `${count} × ${units.length(length_mm)}${filament ? ' of filament' : ''}${fold_mm > 0 ? ` with a ${units.length(fold_mm)} tab` : ''} ${on}`,
  ),
);
const tape = computed(
  () => (layerOf(step, plan) ?? plan.layers.find(({ slot }) => slot === 'box'))?.tape_name,
);
const torn = computed(() => step.strips.reduce((sum, { count, length_mm }) => sum + count * length_mm, 0));
/** A box is scored where it is cut and where it is folded. */
const scored = computed(() => blanks.value.length > 0 || step.key.startsWith('cut_box/'));
const cutThrough = computed(() => draft.choices.cut_through ?? 0);
function setCutThrough(count: number): void {
  draft.choices.cut_through = count > 0 ? count : null;
  void save();
}
/** Where another stop has the fields for it. */
const field = computed(() => {
  if (step.key === 'measure/wrapped') return { to: 'box', says: 'See its blank at Box' };
  if (step.key === 'parcel/weigh') return { to: 'weigh', says: 'To the scale at Weigh' };
  return undefined;
});
/** Fields whose values are known here first; the registry of fields knows how each is typed. */
const typed = computed(() => step.types.filter((path): path is FieldPath => path in FIELDS));
const address = computed(() => {
  const { name, street, town, postcode, country } = draft.buyer;
  return step.key === 'parcel/address' ? [name, street, `${town} ${postcode}`.trim(), country] : [];
});
/** The boards with several side by side, the back of the box first, as they are laid. */
const tiers = computed(() =>
  make.value?.kind === 'laid_together'
    ? (plan.stack?.tiers ?? []).filter(({ pieces }) => pieces.length > 1).toReversed()
    : [],
);
/** Whether lines are cut or scored in a kept carton. */
const isCut = computed(
  () =>
    make.value?.kind === 'saved_box' && Boolean(make.value.cut ?? make.value.shorter ?? make.value.second),
);
const barred = computed(() => draft.piece.construction === 'stretched_canvas');
</script>

<template>
  <div class="head">
    <div class="said" :class="{ long }">
      <p v-if="step.piece" class="piece">{{ step.piece }}</p>
      <h2>{{ step.title }}</h2>
      <p v-if="step.sheet" class="says" data-test="lies">Cut already: {{ step.sheet }}.</p>
      <template v-else>
        <p v-for="(sentence, place) in step.says" :key="sentence" class="says">
          <span v-if="numbered" class="n figure">{{ place + 1 }}</span> {{ sentence }}
        </p>
      </template>
    </div>
    <div class="drawn">
      <HandPicture :verb="step.verb" />
      <LaidPile v-if="lies" class="pile" :steps="steps" :plan="plan" :standing="standing" />
    </div>
  </div>
  <div v-if="typed.length > 0" class="typed">
    <DraftField v-for="path in typed" :key="path" :path="path" />
  </div>
  <address v-if="address.length > 0">
    <template v-for="row in address" :key="row"
      ><span v-if="row">{{ row }}</span></template
    >
  </address>
  <div class="beside" :class="{ bare: !hasPicture }">
    <div v-if="hasPicture" class="picture panel">
      <PocketDrawing v-if="make?.kind === 'card_pockets'" :pocket="make" />
      <CradleDrawing
        v-else-if="make?.kind === 'cradle'"
        :cradle="make"
        :outline="draft.piece.outline"
        :width="plan.size.width_mm"
        :height="plan.size.height_mm"
      />
      <template v-else-if="tiers.length > 0 && plan.stack">
        <TierDrawing v-for="tier in tiers" :key="tier.pieces[0]?.key" :stack="plan.stack" :tier="tier" />
      </template>
      <RollDrawing v-else-if="make?.kind === 'roll'" :plan="plan" />
      <template v-else-if="make?.kind === 'saved_box' && isCut">
        <CutDownDrawing :box="make" />
        <CutDownDrawing v-if="make.second" :box="make" which="second" />
      </template>
      <template v-else-if="blanks.length > 0">
        <BlankDrawing v-for="(blank, nth) in blanks" :key="nth" :blank="blank" />
      </template>
      <CutThrough
        v-else-if="seen.length === 0"
        :plan="plan"
        cut="up"
        :times="3"
        :barred="barred"
        :focus="at"
      />
      <div v-if="seen.length > 0" class="moves" :class="{ aside: blanks.length > 0 || isCut }">
        <figure v-for="act in seen" :key="act.n">
          <figcaption v-if="seen.length > 1" class="n figure">{{ act.n }}</figcaption>
          <MovePicture :picture="act.picture" :says="act.says" />
        </figure>
      </div>
    </div>
    <div class="takes" :class="{ many: parts.length + strips.length > 3 }">
      <template v-if="parts.length > 0">
        <h3>{{ step.sheet ? 'Its parts' : step.stage === 'cut' ? 'Cut' : 'Takes' }}</h3>
        <ul class="figure">
          <li v-for="(part, place) in parts" :key="place">{{ part }}</li>
        </ul>
      </template>
      <template v-if="strips.length > 0">
        <h3>
          Tear <span class="soft">{{ units.run(torn) }}{{ tape ? ` of ${tape}` : '' }}</span>
        </h3>
        <ul class="figure">
          <li v-for="strip in strips" :key="strip">{{ strip }}</li>
        </ul>
      </template>
      <p v-if="step.tools.length > 0 && !step.sheet" class="soft">
        At hand: {{ step.tools.map((tool) => TOOLS[tool]).join(', ') }}.
      </p>
      <template v-if="!step.sheet">
        <p v-for="caution in step.cautions" :key="caution" class="caution">{{ caution }}</p>
        <p v-if="signs.length > 0" class="signs soft">
          <span aria-hidden="true">⚠</span> {{ signs.join(', ') }}
        </p>
      </template>
      <p v-if="scored && !step.sheet" class="slip" data-test="cut-through">
        <template v-if="cutThrough > 0">
          {{ cutThrough === 1 ? 'One score is' : `${cutThrough} scores are` }} cut through: tape each outside
          along its length. The plan counts the box weaker.
        </template>
        <BButton size="sm" @click="setCutThrough(cutThrough + 1)">{{
          cutThrough > 0 ? 'Another one' : 'A score was cut through'
        }}</BButton>
        <BButton v-if="cutThrough > 0" size="sm" @click="setCutThrough(cutThrough - 1)">Take it back</BButton>
      </p>
      <p v-if="make?.kind === 'card_pockets' && !step.sheet">
        <PaperLink :href="`/api/v1/shipments/${id}/drawings/pdf?of=pocket`"
          >The pocket at true scale</PaperLink
        >
      </p>
      <RouterLink v-if="field" class="btn btn-outline-secondary" :to="`/shipments/${id}/${field.to}`">{{
        field.says
      }}</RouterLink>
    </div>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.head {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 150px;
  gap: 20px;
  align-items: start;
}
.drawn {
  display: grid;
  gap: 8px;
  height: 100%;
}
.pile {
  align-self: end;
}
.slip {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.typed {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 240px));
  gap: 0 12px;
  margin-top: 8px;
}
.piece {
  margin: 0;
  color: var(--heather);
  font-size: var(--type-lead);
  font-weight: 600;
}
h2 {
  margin: 0 0 4px;
  font-family: var(--heading);
  font-size: var(--type-huge);
  font-weight: 700;
  line-height: 1.1;
}
.says {
  margin: 0 0 4px;
  font-size: var(--type-title);
  line-height: 1.3;
}
.long .says {
  font-size: var(--type-lead);
}
address {
  display: flex;
  flex-direction: column;
  margin: 8px 0 0;
  padding: 8px 16px;
  background: var(--paper);
  font-size: var(--type-title);
}
.beside {
  display: grid;
  flex: 1 1 0;
  grid-template-columns: minmax(0, 1.3fr) minmax(0, 1fr);
  gap: 20px;
  min-height: 0;
  margin: 8px 0;
}
.n {
  color: var(--heather);
  font-weight: 600;
}
.beside.bare {
  flex: 0 1 auto;
  grid-template-columns: minmax(0, 1fr);
}
.picture {
  display: flex;
  gap: 8px;
  min-width: 0;
  min-height: 0;
  padding: 8px;
}
.moves {
  display: flex;
  flex: 1 1 0;
  gap: 8px;
  min-width: 0;
  min-height: 0;
}
.moves.aside {
  flex: 0 0 22%;
  flex-direction: column;
}
.picture :deep(figure) {
  display: flex;
  flex: 1 1 0;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
  margin: 0;
}
.picture :deep(svg:not(figcaption svg)) {
  flex: 1 1 0;
  width: 100%;
  min-width: 0;
  height: 100%;
  max-height: none;
}
.takes {
  min-width: 0;
  overflow: auto;
  font-size: var(--type-lead);
}
h3 {
  margin: 0 0 4px;
  font-size: var(--type-lead);
}
ul {
  margin: 0 0 8px;
  padding-left: 20px;
}
li {
  margin-bottom: 2px;
}
.takes p {
  margin: 0 0 8px;
  font-size: var(--type-strong);
}
.takes.many,
.takes.many h3 {
  font-size: var(--type-strong);
}
.takes .caution {
  padding: 6px 12px;
  border-left: 4px solid var(--amber-moss);
  background: var(--paper);
}
.takes .signs {
  color: var(--amber-moss);
}
@include at.tablet {
  .head {
    grid-template-columns: minmax(0, 1fr) 110px;
  }
  .pile {
    display: none;
  }
  .beside {
    flex: none;
  }
  .picture :deep(svg:not(figcaption svg)) {
    height: auto;
    max-height: 320px;
  }
}
@include at.phone {
  .head {
    grid-template-columns: minmax(0, 1fr) 76px;
    gap: 10px;
  }
  .beside {
    grid-template-columns: minmax(0, 1fr);
  }
  .says {
    font-size: var(--type-lead);
  }
}
</style>
