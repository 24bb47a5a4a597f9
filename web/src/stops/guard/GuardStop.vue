<script setup lang="ts">
import { BFormRadioGroup } from 'bootstrap-vue-next/components/BFormRadio';
import { computed, nextTick, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';

import PocketDrawing from '@/drawing/PocketDrawing.vue';
import RollDrawing from '@/drawing/RollDrawing.vue';
import type { Cut } from '@/drawing/section';
import WholeCut from '@/drawing/WholeCut.vue';
import type { Choices } from '@/api/types';
import { useNextStep } from '@/frame/foot';
import { useKeys } from '@/keys/useKeys';
import { useShipment } from '@/shipment/useShipment';
import { useUnits } from '@/units/useUnits';

import AddLayer from './AddLayer.vue';
import ChangesList from './ChangesList.vue';
import EngineersView from './EngineersView.vue';
import LayerRow from './LayerRow.vue';
import LessonNotes from './LessonNotes.vue';
import OddsPanel from './OddsPanel.vue';
import PresetPicker from './PresetPicker.vue';
import StackPanel from './StackPanel.vue';
import { useGhost } from './useGhost';
import { useHouse } from './useHouse';

const { id, draft, plan, missing, fingerprint, save } = useShipment();
const units = useUnits();
const house = useHouse();
const router = useRouter();

const CUTS: { value: Cut; text: string }[] = [
  { value: 'up', text: 'bottom to top' },
  { value: 'across', text: 'left to right' },
];
const THICKNESSES = [
  { value: 1, text: 'to scale' },
  { value: 3, text: 'layers × 3' },
];

const cut = ref<Cut>('up');
const times = ref(1);
const opened = ref<string>();

const layers = computed(() => plan.value?.layers ?? []);
/** The layer that is lifted in the drawing, by its place. */
const focus = ref<number>();
/** A change that is pointed at, and the plan as it would be with it. */
const looked = shallowRef<Partial<Choices>>();
const ghost = useGhost(looked);
const pocket = computed(() => {
  const make = layers.value.find((layer) => layer.make.kind === 'card_pockets')?.make;
  return make?.kind === 'card_pockets' ? make : undefined;
});
const rolled = computed(() => plan.value?.carriage === 'rolled');
const barred = computed(() => draft.piece.construction === 'stretched_canvas');
const about = (slot: string) => plan.value?.findings.filter(({ layer }) => layer === slot) ?? [];

function openAt(place: number): void {
  void look(layers.value[place]?.slot ?? '');
}
async function look(slot: string): Promise<void> {
  opened.value = slot;
  await nextTick();
  document.querySelector(`[data-layer='${slot}']`)?.scrollIntoView({ block: 'nearest' });
}

async function settle(): Promise<void> {
  draft.settled.guard = fingerprint.value;
  await save();
  await router.push({ name: 'box', params: { id } });
}

useNextStep(() => ({
  verb: plan.value
    ? { text: 'Continue to Box', press: settle }
    : { text: 'Measure it first', to: { name: 'measure', params: { id } } },
}));

useKeys({
  a: () => {
    const held = document.activeElement?.closest<HTMLElement>('[data-layer]')?.dataset.layer;
    void look(held ?? layers.value[0]?.slot ?? '');
  },
});
</script>

<template>
  <div v-if="plan" class="guard">
    <section class="hero" aria-label="Cut through">
      <div class="heading-row">
        <p class="soft about">Guard shows the layers around the piece and the risk of damage.</p>
        <span v-if="!rolled" class="switches no-print">
          <BFormRadioGroup v-model="cut" aria-label="Cut" :options="CUTS" name="cut" buttons />
          <BFormRadioGroup
            v-model="times"
            aria-label="Thickness of layers"
            :options="THICKNESSES"
            name="times"
            buttons
          />
        </span>
      </div>
      <div class="panel drawn" :class="{ rolled }">
        <RollDrawing v-if="rolled" :plan="plan" />
        <WholeCut
          v-else
          v-model:focus="focus"
          :plan="plan"
          :ghost="ghost"
          :cut="cut"
          :times="times"
          :barred="barred"
          @open="openAt"
        />
      </div>
    </section>
    <OddsPanel :plan="plan" />
    <section>
      <ChangesList v-model:looked="looked" />
      <LessonNotes />
    </section>
    <section class="list">
      <StackPanel v-if="plan.stack" :stack="plan.stack" class="stacked" />
      <div class="heading-row layers">
        <h2>{{ plan.stack ? 'Layers around all of them, outward' : 'Layers, from the art outward' }}</h2>
        <span class="soft">weight, cost in {{ plan.tally.materials.currency }}</span>
      </div>
      <ol>
        <LayerRow
          v-for="(layer, place) in layers"
          :key="layer.slot"
          :layer="layer"
          :number="place + 1"
          :findings="about(layer.slot)"
          :open="opened === layer.slot"
          @update:open="opened = $event ? layer.slot : undefined"
        />
      </ol>
      <AddLayer :slots="plan.slots" @added="look" />
      <div class="rules">
        <p class="soft">By the house rules, {{ house.name.value }}, version {{ plan.rules_version }}.</p>
        <PresetPicker />
      </div>
    </section>
    <EngineersView :survival="plan.survival" @look="look" />
    <div v-if="pocket" class="pocket">
      <PocketDrawing :pocket="pocket" />
      <div>
        <h2>Corner pocket, cut four</h2>
        <p class="figure">
          Blank {{ units.size(pocket.blank_a_mm, pocket.blank_b_mm) }}, score at the dashed lines, folded
          toward you. The tab laps outside the far wall and closes the corner. Staples, where used, go through
          lapped card only, points away from the art.
        </p>
      </div>
    </div>
  </div>
  <p v-else class="soft">
    The layers follow from the measure{{
      missing.some((path) => path.startsWith('others.')) ? ' of every piece' : ''
    }}.
    <RouterLink :to="{ name: 'measure', params: { id } }">Measure the piece</RouterLink>
  </p>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.guard {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.2fr);
  gap: 12px 24px;
  align-items: start;
}
.about {
  margin: 0;
}
.hero,
.list {
  grid-column: 1 / -1;
}
.drawn.rolled {
  max-width: 560px;
}
ol {
  margin: 0 0 12px;
  padding: 0;
  border-top: 1px solid var(--sedge);
  list-style: none;
}
.switches {
  display: flex;
  gap: 8px;
}
.layers,
.stacked {
  margin-top: 16px;
}
.pocket {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 8px 20px;
  align-items: center;
  margin-top: 16px;
}
.pocket > div {
  flex: 1 1 180px;
}
.pocket h2 {
  font-size: var(--type-strong);
}
.rules {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: baseline;
  justify-content: space-between;
  margin-bottom: 8px;
}
.rules p {
  margin: 0;
}
@include at.tablet {
  .guard {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
