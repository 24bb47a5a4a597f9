<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';

import type { Blank, BoxSum, MakeOf } from '@/api/types';
import BlankDrawing from '@/drawing/BlankDrawing.vue';
import BlocksDrawing from '@/drawing/BlocksDrawing.vue';
import FoldPlay from '@/drawing/FoldPlay.vue';
import CushionChart from '@/drawing/CushionChart.vue';
import ParcelField from '@/drawing/ParcelField.vue';
import PlateDrawing from '@/drawing/PlateDrawing.vue';
import PocketDrawing from '@/drawing/PocketDrawing.vue';
import RingDrawing from '@/drawing/RingDrawing.vue';
import SheetDrawing from '@/drawing/SheetDrawing.vue';

import type { Answer, Numbers, SumName } from './sum';

const { sum, numbers, told, box } = defineProps<{
  sum: SumName;
  numbers: Numbers;
  told: Answer;
  /** What is asked of a box, to fold it. */
  box?: BoxSum;
}>();

const folds = ref(false);

const n = (key: string) => numbers[key] ?? 0;
const t = (key: string) => Number(told[key] ?? 0);

const pocket = computed(() => told as unknown as MakeOf<'card_pockets'>);
const blanks = computed(() => (told.blanks as Blank[] | undefined) ?? []);
const curve = computed(() => ({
  a_kpa: n('a_kpa'),
  b_m3_per_kj: n('b_m3_per_kj'),
  epsilon_min_kj_m3: numbers.epsilon_min ?? undefined,
  epsilon_max_kj_m3: numbers.epsilon_max ?? undefined,
}));
</script>

<template>
  <div v-if="sum === 'corner-pocket'">
    <PocketDrawing :pocket="pocket" />
    <template v-if="box">
      <BButton v-if="!folds" class="no-print" @click="folds = true">Fold it</BButton>
      <FoldPlay v-else :box="box" />
    </template>
  </div>
  <SheetDrawing
    v-else-if="sum === 'contact-sheet'"
    :width="t('sheet_width_mm')"
    :height="t('sheet_height_mm')"
    :inner-width="n('width_mm')"
    :inner-height="n('height_mm')"
    inner="face"
  />
  <SheetDrawing
    v-else-if="sum === 'wrap'"
    :width="t('width_mm')"
    :height="t('length_mm')"
    :inner-width="n('across_mm')"
    :inner-height="n('along_mm')"
    inner="first turn, face"
  />
  <CushionChart
    v-else-if="sum === 'cushion'"
    :curve="curve as never"
    :thickness="n('thickness_mm')"
    :drop="n('drop_mm')"
    :limit="numbers.limit_g ?? undefined"
    name="this pad"
    :point="{ static_kpa: t('static_kpa'), peak_g: (told.peak_g as number | null) ?? null }"
  />
  <PlateDrawing
    v-else-if="sum === 'press-in'"
    :side="Math.max(n('side_a_mm'), n('side_b_mm'))"
    :gives="t('deflection_mm')"
  />
  <BlocksDrawing v-else-if="sum === 'stack'" :allowed="t('allowed_n')" :crushes="t('bct_n')" />
  <RingDrawing
    v-else-if="sum === 'roll'"
    :inner="n('inner_mm')"
    :outer="t('outer_mm')"
    :tube="t('tube_inside_mm')"
    :triangle="t('triangle_side_mm')"
  />
  <div v-else-if="blanks.length > 0" class="blanks">
    <section v-for="blank in blanks" :key="blank.part">
      <h3 v-if="blanks.length > 1">{{ blank.name }}</h3>
      <BlankDrawing :blank="blank" />
    </section>
    <section v-if="box && blanks.some(({ hinges }) => hinges.length > 0)">
      <BButton v-if="!folds" class="no-print" @click="folds = true">Fold it</BButton>
      <FoldPlay v-else :box="box" />
    </section>
  </div>
  <ParcelField v-else-if="sum === 'odds'" :one-in="1 / Math.max(t('probability'), 1e-9)" />
  <BlocksDrawing
    v-else-if="sum === 'billable-weight'"
    :weights="{ actual: t('actual_kg'), volumetric: t('volumetric_kg'), billable: t('billable_kg') }"
  />
</template>

<style scoped>
h3 {
  margin: 4px 0 0;
  font-size: var(--type-strong);
}
h3::first-letter {
  text-transform: uppercase;
}
section + section {
  margin-top: 12px;
  border-top: 1px solid var(--sedge);
}
</style>
