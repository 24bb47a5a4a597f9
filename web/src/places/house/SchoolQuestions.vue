<script setup lang="ts">
import { computed } from 'vue';

import type { SchoolQuestion } from '@/api/types';
import { counted } from '@/words/grammar';

import SchoolQuestionField from './SchoolQuestionField.vue';

/** The few questions that change most plans, then the others. */
const { questions } = defineProps<{ questions: SchoolQuestion[] }>();
const schools = defineModel<Record<string, string>>({ required: true });

const first = computed(() => questions.filter(({ asked_first }) => asked_first));
const others = computed(() => questions.filter(({ asked_first }) => !asked_first));
/** Those that the studio answers otherwise than Hummock does. */
const otherwise = computed(
  () => others.value.filter(({ key, schools: [usual] }) => schools.value[key] !== usual?.key).length,
);
</script>

<template>
  <section>
    <h2>Questions</h2>
    <p class="soft">Practitioners answer these differently. Neither side is wrong.</p>
    <div class="questions">
      <SchoolQuestionField
        v-for="question in first"
        :key="question.key"
        v-model="schools[question.key]"
        :question="question"
        drawn
      />
    </div>
    <details class="others" data-test="more-questions">
      <summary>
        More questions
        <span class="soft"
          >{{ counted(others.length, 'question') }} that change{{ others.length === 1 ? 's' : '' }} fewer
          plans{{ otherwise > 0 ? `, ${otherwise} answered your own way` : '' }}</span
        >
      </summary>
      <div class="questions">
        <SchoolQuestionField
          v-for="question in others"
          :key="question.key"
          v-model="schools[question.key]"
          :question="question"
        />
      </div>
    </details>
  </section>
</template>

<style scoped lang="scss">
@use '@/styles/at';

h2 {
  margin: 20px 0 0;
  font-size: var(--type-lead);
}
.questions {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(380px, 1fr));
  gap: 16px 20px;
}
.others {
  margin-top: 16px;
  border-top: 1px solid var(--sedge);
}
summary {
  min-height: 44px;
  padding: 10px 0;
  font-family: var(--heading);
  font-size: var(--type-strong);
  font-weight: 600;
  cursor: pointer;
}
summary .soft {
  font-family: var(--text);
  font-weight: 400;
}
@include at.phone {
  .questions {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
