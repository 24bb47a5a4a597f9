<script setup lang="ts">
import { keepPreviousData } from '@tanstack/vue-query';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { useDebounceFn } from '@vueuse/core';
import { computed, reactive, shallowRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';

import { useRead } from '@/api/queries';
import NumberField from '@/parts/NumberField.vue';
import { vSay } from '@/said/say';
import { draftOf, inputsOf } from '@/shipment/draft';
import { beginShipment } from '@/shipment/begun';
import { useUnits } from '@/units/useUnits';

import { figure } from './figures';
import SumDrawing from './SumDrawing.vue';
import { partOf } from './sum';
import type { Answer, Numbers, Sum, SumName } from './sum';

const { sum } = defineProps<{ sum: Sum }>();
const units = useUnits();
const route = useRoute();
const router = useRouter();

const WORK_AFTER_MS = 80;
/** Sums whose answer is a number to compare by, and no picture. */
const UNDRAWN: readonly SumName[] = ['series', 'falls', 'pressed', 'glass', 'base', 'pierced', 'harm'];

/** The numbers stand in the address, so that a link leads to the same sum. */
const numbers = reactive<Numbers>(
  Object.fromEntries(
    sum.asks.map(({ key, first }) => {
      const asked = route.query[key];
      const known = typeof asked === 'string' && asked !== '' ? Number(asked) : first;
      return [key, Number.isFinite(known) ? known : first];
    }),
  ),
);
/** What is asked: the numbers, once the hand rests. */
const settled = shallowRef<Numbers>({ ...numbers });
const { data, away, refused } = useRead<Answer>({
  queryKey: computed(() => ['sum', sum.name, settled.value]),
  queryFn: () => sum.work(settled.value),
  enabled: computed(() => lacking(settled.value).length === 0),
  placeholderData: keepPreviousData,
});
const told = computed(() => (refused.value || missing.value.length > 0 ? undefined : data.value));
const errors = computed(() => refused.value?.fields ?? {});

function lacking(given: Numbers) {
  return sum.asks.filter(({ key, optional }) => !optional && given[key] == null);
}

const missing = computed(() => lacking(numbers));
const figures = computed(() => {
  const answer = told.value;
  if (!answer) return [];
  const given = (key: string) => (partOf(answer, key) ?? null) !== null;
  return sum.tells
    .filter(({ key, when }) => when !== 'given' || given(key))
    .map((tell) => ({ label: tell.label, shown: figure(answer, tell, units) }));
});
const given = computed(() =>
  sum.asks
    .filter(({ key }) => numbers[key] != null)
    .map(({ key, label, unit }) => `${label} ${numbers[key]}${unit ? `\u00a0${unit}` : ''}`)
    .join(' · '),
);

function work(): void {
  settled.value = { ...numbers };
}
const workSoon = useDebounceFn(work, WORK_AFTER_MS);
watch(numbers, () => {
  const query = Object.fromEntries(
    Object.entries(numbers).map(([key, value]) => [key, value === null ? '' : String(value)]),
  );
  void router.replace({ query });
  void workSoon();
});

/** Begins a shipment with what is known of the piece, and the sum in its notes. */
async function begin(): Promise<void> {
  const begun = draftOf({});
  Object.assign(begun.piece, sum.piece(numbers));
  const result = figures.value.map(({ label, shown }) => `${label} ${shown}`).join(', ');
  begun.piece.notes = `${sum.title}: ${given.value}. ${result}.`;
  const id = beginShipment(inputsOf(begun));
  await router.push({ name: 'measure', params: { id } });
}

const print = () => window.print();
</script>

<template>
  <section :data-sum="sum.name">
    <div class="heading-row">
      <h2>{{ sum.title }}</h2>
      <span class="soft">{{ sum.about }}</span>
    </div>
    <div class="sheet">
      <form class="asks no-print" @submit.prevent="work">
        <label v-for="ask in sum.asks.filter(({ slider }) => slider)" :key="ask.key" class="slide">
          <span>{{ ask.label }}</span>
          <strong class="figure">{{ numbers[ask.key] }}</strong>
          <input
            v-model.number="numbers[ask.key]"
            type="range"
            class="form-range"
            :name="ask.key"
            :min="ask.slider!.least"
            :max="ask.slider!.most"
            :step="ask.slider!.step"
          />
        </label>
        <NumberField
          v-for="ask in sum.asks.filter(({ slider }) => !slider)"
          :key="ask.key"
          v-model="numbers[ask.key]!"
          :label="ask.unit ? `${ask.label}, ${ask.unit}` : ask.label"
          :name="ask.key"
          :error="
            errors[ask.key] ?? (numbers[ask.key] == null && !ask.optional ? 'give a number' : undefined)
          "
        />
      </form>
      <div>
        <p class="given print-only">{{ given }}</p>
        <p v-if="away" v-say class="trouble">The server is away. Trying again.</p>
        <dl v-if="figures.length > 0" class="figure" data-test="figures">
          <div v-for="{ label, shown } in figures" :key="label">
            <dt>{{ label }}</dt>
            <dd>{{ shown }}</dd>
          </div>
        </dl>
        <p v-else class="soft">Complete the numbers to see the answer.</p>
        <div v-if="told && !UNDRAWN.includes(sum.name)" class="panel drawing">
          <SumDrawing :sum="sum.name" :numbers="numbers" :told="told" :box="sum.box?.(settled, told)" />
        </div>
        <div class="acts no-print">
          <BButton :disabled="!told" @click="print">Print the strip</BButton>
          <BButton variant="primary" :disabled="!told" @click="begin">Make this a shipment</BButton>
        </div>
      </div>
    </div>
  </section>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.heading-row {
  justify-content: flex-start;
}
.asks {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0 12px;
  align-items: end;
}
.slide {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 8px;
  align-items: end;
  margin-bottom: 6px;
  line-height: 1.25;
}
.slide input {
  grid-column: 1 / -1;
  height: 44px;
  accent-color: var(--moss);
}
.sheet {
  display: grid;
  grid-template-columns: minmax(300px, 400px) minmax(0, 1fr);
  gap: 24px;
  align-items: start;
}
dl {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
  gap: 8px 16px;
  margin: 0 0 12px;
}
dl div {
  border-top: 1px solid var(--sedge);
}
dt {
  color: var(--peat-soft);
  font-weight: 400;
}
dd {
  margin: 0;
  font-size: var(--type-lead);
  font-weight: 600;
  line-height: 1.25;
}
.drawing {
  max-width: 620px;
  padding: 8px;
}
.acts {
  display: flex;
  gap: 12px;
  margin-top: 12px;
}
.trouble {
  color: var(--rowan);
  font-weight: 600;
}
.print-only {
  display: none;
}
@include at.phone {
  .sheet {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media print {
  .sheet {
    display: block;
    max-width: 120mm;
  }
  .print-only {
    display: block;
  }
}
</style>
