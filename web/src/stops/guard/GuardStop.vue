<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';

import CutThrough from '@/drawing/CutThrough.vue';
import PocketDrawing from '@/drawing/PocketDrawing.vue';
import type { Cut } from '@/drawing/section';
import { useShipment } from '@/shipment/useShipment';
import { useUnits } from '@/units/useUnits';

import LayerRow from './LayerRow.vue';
import { slotsOf } from './layerSlots';
import { useHouse } from './useHouse';

const { id, draft, plan, fingerprint, line, save } = useShipment();
const units = useUnits();
const house = useHouse();
const router = useRouter();

const cut = ref<Cut>('up');
const times = ref(1);
const opened = ref<string>();

const slots = computed(() => (plan.value ? slotsOf(plan.value) : []));
const focus = computed({
  get: () => slots.value.find((slot) => slot.name === opened.value)?.place,
  set: (place) => {
    opened.value = slots.value.find((slot) => slot.place === place)?.name;
  },
});
const pocket = computed(() => {
  const make = plan.value?.layers.find((layer) => layer.make.kind === 'card_pockets')?.make;
  return make?.kind === 'card_pockets' ? make : undefined;
});
const done = computed(() => line.value?.stops[1]?.mark === 'done');

async function settle(): Promise<void> {
  draft.settled.guard = fingerprint.value;
  await save();
  await router.push({ name: 'box', params: { id } });
}
</script>

<template>
  <div v-if="plan" class="guard">
    <section>
      <div class="heading-row">
        <h2>Cut through</h2>
        <span class="switches no-print">
          <label>
            <span class="visually-hidden">Cut</span>
            <select v-model="cut" class="form-select" name="cut">
              <option value="up">the bottom edge</option>
              <option value="across">the left edge</option>
            </select>
          </label>
          <label>
            <span class="visually-hidden">Thickness of layers</span>
            <select v-model="times" class="form-select" name="times">
              <option :value="1">to scale</option>
              <option :value="3">layers × 3</option>
            </select>
          </label>
        </span>
      </div>
      <div class="panel">
        <CutThrough v-model:focus="focus" :plan="plan" :cut="cut" :times="times" />
      </div>
      <div v-if="pocket" class="pocket">
        <PocketDrawing :pocket="pocket" />
        <div>
          <h2>Corner pocket, cut four</h2>
          <p class="figure">
            Blank {{ units.size(pocket.blank_a_mm, pocket.blank_b_mm) }}, score at the dashed lines, folded
            toward you. The tab laps outside the far wall and closes the corner.
          </p>
        </div>
      </div>
    </section>
    <section>
      <div class="heading-row">
        <h2>Layers, from the art outward</h2>
        <span class="soft">weight, cost in {{ plan.tally.materials.currency }}</span>
      </div>
      <ol>
        <LayerRow
          v-for="(slot, place) in slots"
          :key="slot.name"
          :step="slot"
          :number="(slot.place ?? place) + 1"
          :open="opened === slot.name"
          @update:open="opened = $event ? slot.name : undefined"
        />
      </ol>
      <p class="soft">By the house rules, {{ house.name.value }}, version {{ plan.rules_version }}.</p>
      <BButton variant="primary" class="no-print" @click="settle">
        {{ done ? 'Guard is right. On to Box' : 'This guard is right' }}
      </BButton>
    </section>
  </div>
  <p v-else class="soft">
    The layers follow from the measure.
    <RouterLink :to="{ name: 'measure', params: { id } }">Measure the piece</RouterLink>
  </p>
</template>

<style scoped>
.guard {
  display: grid;
  grid-template-columns: minmax(0, 1.08fr) minmax(0, 1fr);
  gap: 20px;
  align-items: start;
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
.switches .form-select {
  width: auto;
  min-height: 36px;
  padding-block: 2px;
  font-size: 0.9375rem;
}
.pocket {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 20px;
  align-items: center;
  margin-top: 12px;
}
.pocket > div {
  flex: 1 1 180px;
}
.pocket h2 {
  font-size: 1.0625rem;
}
@media (max-width: 900px) {
  .guard {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
