<script setup lang="ts">
import { computed } from 'vue';

import type { Finding, Layer } from '@/api/types';
import MaterialBand from '@/drawing/MaterialBand.vue';
import { swatchOf } from '@/drawing/swatch';
import FindingNote from '@/frame/FindingNote.vue';
import { layerWords } from '@/words/layers';
import SumOf from '@/parts/SumOf.vue';
import { useShipment } from '@/shipment/useShipment';
import { grams } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import AlternativeCards from './AlternativeCards.vue';
import LayerControls from './LayerControls.vue';
import { FIELDS } from './layerFields';
import PartsList from './PartsList.vue';

const { layer, number, findings } = defineProps<{
  layer: Layer;
  number: number;
  /** What the plan says about it. */
  findings: Finding[];
}>();
const open = defineModel<boolean>('open', { required: true });
const { errors } = useShipment();
const units = useUnits();

const LEVELS = { stop: 'Stop', mind: 'Mind', note: 'Note' } as const;

const words = computed(() => layerWords(layer, units));
const swatch = computed(() => swatchOf(layer));
const refused = computed(() => FIELDS[layer.slot]?.some((field) => errors.value[field]));
const gravest = computed(() => findings[0]?.level);
const LEAST_SHOWN_MM = 0.5;
const adds = computed(() => {
  if (Object.values(layer.adds).every((side) => Math.abs(side) < LEAST_SHOWN_MM)) {
    return 'adds less than it takes to measure';
  }
  const { front_mm, back_mm, left_mm, right_mm, top_mm, bottom_mm } = layer.adds;
  const beside =
    left_mm === right_mm ? units.length(left_mm) : `${units.number(left_mm)} and ${units.length(right_mm)}`;
  const along =
    top_mm === bottom_mm ? units.length(top_mm) : `${units.number(top_mm)} and ${units.length(bottom_mm)}`;
  return `adds ${units.length(front_mm)} in front, ${units.length(back_mm)} behind, ${beside} left and right, ${along} above and below`;
});
</script>

<template>
  <li :class="{ open }" :data-layer="layer.slot">
    <button type="button" class="head" :aria-expanded="open" @click="open = !open">
      <span class="number soft figure">{{ number }}</span>
      <svg width="40" height="22" aria-hidden="true"><MaterialBand v-if="swatch" :band="swatch" /></svg>
      <span class="words">
        <strong>{{ words.name }}</strong>
        <span class="soft figure">{{ words.make }}</span>
        <span v-if="gravest && gravest !== 'note'" class="level" :class="gravest">
          {{ LEVELS[gravest] }}
        </span>
      </span>
      <span class="figure mass">{{ grams(layer.weight.mass_g) }}</span>
      <SumOf class="cost" of="layer" :sum="layer.cost" bare />
    </button>
    <div v-if="open || refused" class="body">
      <p>{{ layer.why }}</p>
      <FindingNote v-for="finding in findings" :key="finding.says" :finding="finding" />
      <p v-for="caution in layer.cautions" :key="caution" class="caution">{{ caution }}</p>
      <p v-if="layer.slot !== 'roll'" class="soft figure">{{ adds }}</p>
      <PartsList :layer="layer" />
      <LayerControls :layer="layer" />
      <AlternativeCards v-if="open" :place="layer.slot" />
    </div>
  </li>
</template>

<style scoped lang="scss">
@use '@/styles/at';

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
  grid-template-columns: 24px 40px minmax(0, 1fr) auto 44px;
  gap: 8px;
  align-items: center;
  width: 100%;
  min-height: 54px;
  padding: 5px 4px;
  border: 0;
  background: none;
  color: inherit;
  text-align: left;
}
.number {
  text-align: right;
  white-space: nowrap;
}
.words {
  display: flex;
  flex-direction: column;
  line-height: 1.3;
}
.words .soft {
  font-size: var(--type-small);
}
.level {
  color: var(--amber-moss);
  font-size: var(--type-small);
  font-weight: 600;
}
.level.stop {
  color: var(--rowan);
}
.mass,
.cost {
  text-align: right;
}
.body {
  padding: 0 12px 8px 44px;
}
.body p {
  margin: 0 0 6px;
}
.caution {
  padding-left: 10px;
  border-left: 3px solid var(--peat-soft);
  font-size: var(--type-small);
}
@include at.phone {
  .body {
    padding-left: 14px;
  }
}
</style>
