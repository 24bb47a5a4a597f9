<script setup lang="ts">
import { computed } from 'vue';

import type { PackStepView } from '@/api/types';
import { capital, counted } from '@/words/grammar';
import { partWords } from '@/words/layers';
import { useShipment } from '@/shipment/useShipment';
import { useUnits } from '@/units/useUnits';

import { layerOf, titleOf } from './steps';
import type { Standing } from './usePacking';

/** All steps on one screen, for a parcel like many before; what has to be looked at is still asked one by one. */
const { steps, standing } = defineProps<{
  steps: readonly PackStepView[];
  standing: (step: PackStepView) => Standing;
}>();
const emit = defineEmits<{ tick: [done: PackStepView[]]; back: [key: string] }>();
const { plan } = useShipment();
const units = useUnits();

const left = computed(() => steps.filter((step) => standing(step) !== 'done'));
const asked = (step: PackStepView) => step.look?.stops === true;
const questions = computed(() => left.value.filter(asked));
function takes(step: PackStepView): string {
  const layer = plan.value && layerOf(step, plan.value);
  return step.parts.map((part) => partWords(part, layer ?? { material: part.material }, units)).join('; ');
}
const set = (step: PackStepView, done: boolean) => {
  if (done) emit('tick', [step]);
  else emit('back', step.key);
};
</script>

<template>
  <section aria-label="All steps">
    <p class="all no-print">
      <span v-if="questions.length > 0" role="status">
        {{ capital(counted(questions.length, 'look')) }} still to answer.
      </span>
      <strong v-else-if="left.length === 0" role="status">Packed.</strong>
    </p>
    <ol>
      <li v-for="step in steps" :key="step.key" :class="standing(step)">
        <label>
          <input
            type="checkbox"
            :name="step.key"
            :checked="standing(step) === 'done'"
            @change="set(step, ($event.target as HTMLInputElement).checked)"
          />
          <span>
            <strong>{{ titleOf(step) }}</strong>
            <span v-if="standing(step) === 'touched'" class="again">to be done again</span>
            <span v-if="step.sheet" class="soft figure">cut already: {{ step.sheet }}</span>
            <span v-if="step.look" class="asks">{{ step.look.asks }}</span>
            <span v-if="step.parts.length > 0" class="soft figure">{{ takes(step) }}</span>
          </span>
        </label>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.all .btn {
  white-space: nowrap;
}
.all {
  display: flex;
  gap: 16px;
  align-items: center;
}
ol {
  margin: 0;
  padding: 0;
  list-style: none;
  columns: 2 420px;
  column-gap: 32px;
}
li {
  border-bottom: 1px solid var(--sedge);
  break-inside: avoid;
}
label {
  display: flex;
  gap: 12px;
  align-items: flex-start;
  min-height: 44px;
  padding: 8px 0;
  font-size: var(--type-strong);
  cursor: pointer;
}
input {
  width: 24px;
  height: 24px;
  margin-top: 2px;
  accent-color: var(--moss);
  flex: none;
}
label > span > * {
  display: block;
}
.done strong {
  color: var(--peat-soft);
  font-weight: 400;
}
.again {
  color: var(--amber-moss);
  font-weight: 600;
}
</style>
