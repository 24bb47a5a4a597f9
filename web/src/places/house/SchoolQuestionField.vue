<script setup lang="ts">
import { BFormRadio } from 'bootstrap-vue-next/components/BFormRadio';

import type { SchoolQuestion } from '@/api/types';

import SchoolDrawing from './SchoolDrawing.vue';

/** A question with its schools; drawn, each school shows what it does. */
const { question, drawn } = defineProps<{ question: SchoolQuestion; drawn?: boolean }>();
const answer = defineModel<string>();
</script>

<template>
  <fieldset :data-school="question.key">
    <legend>{{ question.question }}</legend>
    <div
      v-for="school in question.schools"
      :key="school.key"
      class="school"
      :class="{ chosen: answer === school.key }"
    >
      <BFormRadio v-model="answer" :name="`schools.${question.key}`" :value="school.key">
        <strong>{{ school.name }}</strong>
        <span class="soft">{{ school.why }}</span>
      </BFormRadio>
      <SchoolDrawing v-if="drawn" :school="`${question.key}.${school.key}`" />
    </div>
  </fieldset>
</template>

<style scoped lang="scss">
fieldset {
  min-width: 0;
  margin: 0;
}
legend {
  margin-bottom: 4px;
  font-family: var(--heading);
  font-size: var(--type-strong);
  font-weight: 600;
}
.school {
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: space-between;
  padding: 0 10px;
  border: 1px solid var(--sedge);
  border-bottom-width: 0;
  background: var(--paper);
  line-height: 1.3;
}
.school:last-child {
  border-bottom-width: 1px;
}
.chosen {
  background: var(--lichen);
}
strong,
.soft {
  display: block;
}
.soft {
  font-size: var(--type-small);
}
.chosen .soft {
  color: var(--peat);
}
</style>
