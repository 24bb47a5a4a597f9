<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import { useRouter } from 'vue-router';

import BlankDrawing from '@/drawing/BlankDrawing.vue';
import DraftField from '@/parts/DraftField.vue';
import { useShipment } from '@/shipment/useShipment';
import { useHouse } from '@/stops/guard/useHouse';
import { area } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import CutList from './CutList.vue';
import TubeBox from './TubeBox.vue';

const { id, draft, plan, summary, fingerprint, line, save } = useShipment();
const house = useHouse();
const units = useUnits();
const router = useRouter();

const layer = computed(() => plan.value?.layers.at(-1));
const carton = computed(() => {
  const make = layer.value?.make;
  return make?.kind === 'slotted_box' ? make : undefined;
});
const mailer = computed(() => {
  const make = layer.value?.make;
  return make?.kind === 'mailer' ? make : undefined;
});
const sheet = computed(() => {
  const need = carton.value?.sheet;
  if (!need || need.kind === 'no_sheet')
    return 'no sheet in the stores is large enough, even for a blank in two parts';
  const size = units.size(need.sheet.width_mm, need.sheet.height_mm);
  if (need.kind === 'one') return `one sheet ${size}`;
  const parts = need.parts.map((part) => units.size(part.width_mm, part.height_mm)).join(' and ');
  return `${need.sheets === 1 ? 'one sheet' : `${need.sheets} sheets`} ${size}, in parts of ${parts}`;
});
const done = computed(() => line.value?.stops[2]?.mark === 'done');

async function settle(): Promise<void> {
  draft.settled.box = fingerprint.value;
  await save();
  await router.push({ name: 'price', params: { id } });
}
</script>

<template>
  <div v-if="carton && summary && layer" class="box">
    <section>
      <h2>{{ layer.slot === 'second_box' ? 'Second box' : 'Slotted box' }}, opening on an edge</h2>
      <p v-if="layer.slot === 'second_box'" class="soft">
        The first box is cut the same way around what it holds; its figures are at its layer in Guard.
      </p>
      <p>{{ layer.why }}</p>
      <DraftField
        path="choices.box_board"
        label="Board"
        :codes="house.foldingBoards.value"
        :empty="`House rule: ${house.boardName(house.materials.value?.box_board)}`"
      />
      <dl class="figure">
        <dt>inside</dt>
        <dd>{{ units.size(carton.inside_length_mm, carton.inside_width_mm, carton.inside_height_mm) }}</dd>
        <dt>outside</dt>
        <dd>
          {{ units.size(summary.outside.across_mm, summary.outside.up_mm, summary.outside.through_mm) }}
        </dd>
        <dt>board</dt>
        <dd>{{ area(carton.blank.area_m2) }}, {{ layer.material_name }}</dd>
        <dt>sheet</dt>
        <dd>{{ sheet }}</dd>
        <dt>tape</dt>
        <dd>{{ (layer.tape_mm / 1000).toFixed(1) }} m, an H at both ends</dd>
      </dl>
      <CutList :carton="carton" />
    </section>
    <section>
      <div class="heading-row">
        <h2>Blank, seen from inside</h2>
        <span class="soft figure">
          {{ units.size(carton.blank.width_mm, carton.blank.height_mm) }}, flutes upright
        </span>
      </div>
      <div class="panel"><BlankDrawing :blank="carton.blank" /></div>
      <p v-for="caution in layer.cautions" :key="caution" class="soft">{{ caution }}</p>
      <BButton variant="primary" class="no-print" @click="settle">
        {{ done ? 'The box is right. On to Price' : 'This box is right' }}
      </BButton>
    </section>
  </div>
  <TubeBox v-else-if="plan && layer?.make.kind === 'tube'" :plan="plan" :layer="layer">
    <BButton variant="primary" class="no-print" @click="settle">
      {{ done ? 'The tube is right. On to Price' : 'This tube is right' }}
    </BButton>
  </TubeBox>
  <div v-else-if="mailer && summary && layer" class="mailer">
    <h2>{{ layer.material_name }}</h2>
    <p>{{ layer.why }}</p>
    <dl class="figure">
      <dt>inside</dt>
      <dd>{{ units.size(mailer.inside_width_mm, mailer.inside_length_mm) }}</dd>
      <dt>outside</dt>
      <dd>
        {{ units.size(summary.outside.across_mm, summary.outside.up_mm, summary.outside.through_mm) }}
      </dd>
      <dt>tape</dt>
      <dd>{{ (layer.tape_mm / 1000).toFixed(1) }} m of {{ layer.tape_name }}, over the opening</dd>
    </dl>
    <p class="soft">Nothing is cut but the two boards: their size is at the folio in Guard.</p>
    <BButton variant="primary" class="no-print" @click="settle">
      {{ done ? 'The mailer is right. On to Price' : 'This mailer is right' }}
    </BButton>
  </div>
  <p v-else class="soft">
    The box follows from the measure.
    <RouterLink :to="{ name: 'measure', params: { id } }">Measure the piece</RouterLink>
  </p>
</template>

<style scoped>
.mailer {
  max-width: 560px;
}
.box {
  display: grid;
  grid-template-columns: 280px minmax(0, 1fr);
  gap: 20px;
  align-items: start;
}
h2 {
  margin: 0 0 4px;
  font-size: 1.1875rem;
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
@media (max-width: 900px) {
  .box {
    grid-template-columns: minmax(0, 1fr);
  }
  .box > section:last-child {
    order: -1;
  }
}
</style>
