<script setup lang="ts">
import { computed } from 'vue';

import MaterialBand from '@/drawing/MaterialBand.vue';
import { boardPattern } from '@/drawing/band';
import type { Band } from '@/drawing/band';
import { layerWords } from '@/frame/words';
import { useShipment } from '@/shipment/useShipment';
import { grams } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import LayerControls from './LayerControls.vue';
import type { Slot } from './layerSlots';

const { step, number } = defineProps<{ step: Slot; number: number }>();
const open = defineModel<boolean>('open', { required: true });
const { errors } = useShipment();
const units = useUnits();

const LEFT_OUT: Partial<Record<Slot['name'], string>> = {
  second_wrap: 'Second wrap, at right angles',
  fill: 'Fill at the edges and behind',
};
const FIELDS: Partial<Record<Slot['name'], readonly string[]>> = {
  pockets: ['choices.pocket_leg'],
  boards: ['choices.face_board', 'choices.board_proud'],
  first_wrap: ['choices.first_turns'],
  second_wrap: ['choices.second_turns'],
  fill: ['choices.clearance'],
};

const words = computed(() =>
  step.layer
    ? layerWords(step.layer, units)
    : { name: LEFT_OUT[step.name] ?? '', make: 'left out of this shipment' },
);
const refused = computed(() => FIELDS[step.name]?.some((field) => errors.value[field]));
const swatch = computed<Band>(() => {
  const kind = step.layer?.make.kind;
  const pattern =
    kind === 'contact_sheet'
      ? 'contact'
      : kind === 'wrap'
        ? 'bubble'
        : kind === 'edge_fill'
          ? 'fill'
          : boardPattern(step.layer?.material ?? '');
  const thin = pattern === 'contact';
  return { x: 1, y: thin ? 9 : 2, width: 38, height: thin ? 4 : 18, pattern, outward: 'up', turns: 2 };
});
</script>

<template>
  <li :class="{ open, out: !step.layer }" :data-layer="step.name">
    <button type="button" class="head" :aria-expanded="open" @click="open = !open">
      <span class="number soft figure">{{ step.layer ? number : '' }}</span>
      <svg width="40" height="22" aria-hidden="true"><MaterialBand v-if="step.layer" :band="swatch" /></svg>
      <span class="words">
        <strong>{{ words.name }}</strong>
        <span class="soft figure">{{ words.make }}</span>
      </span>
      <span class="figure mass">{{ step.layer ? grams(step.layer.weight.mass_g) : '' }}</span>
      <span class="figure cost">{{ step.layer?.cost.amount }}</span>
    </button>
    <div v-if="open || refused" class="body">
      <p v-if="step.layer">{{ step.layer.why }}</p>
      <p v-if="step.layer" class="soft figure">
        adds {{ units.length(step.layer.adds.front_mm) }} in front,
        {{ units.length(step.layer.adds.back_mm) }} behind, {{ units.length(step.layer.adds.left_mm) }} left
        and right, {{ units.length(step.layer.adds.bottom_mm) }} above and below
      </p>
      <LayerControls :step="step" />
    </div>
  </li>
</template>

<style scoped>
li {
  border-bottom: 1px solid var(--sedge);
  border-left: 4px solid transparent;
}
.open {
  border-left-color: var(--heather);
  background: var(--paper);
}
.head {
  display: grid;
  grid-template-columns: 14px 40px minmax(0, 1fr) auto 44px;
  gap: 8px;
  align-items: center;
  width: 100%;
  min-height: 58px;
  padding: 6px 4px;
  border: 0;
  background: none;
  color: inherit;
  text-align: left;
}
.number {
  text-align: right;
}
.words {
  display: flex;
  flex-direction: column;
  line-height: 1.3;
}
.words .soft {
  font-size: 0.9375rem;
}
.mass,
.cost {
  text-align: right;
}
.out strong {
  color: var(--peat-soft);
}
.body {
  padding: 0 12px 8px 44px;
}
.body p {
  margin: 0 0 8px;
}
</style>
