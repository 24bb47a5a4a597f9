<script setup lang="ts">
import { BFormRadio } from 'bootstrap-vue-next/components/BFormRadio';

import type { SchoolQuestion } from '@/api/types';

const { questions } = defineProps<{ questions: SchoolQuestion[] }>();
const schools = defineModel<Record<string, string>>({ required: true });
</script>

<template>
  <section>
    <h2>Schools</h2>
    <p class="soft">Questions that practitioners answer differently. Neither side is wrong.</p>
    <div class="questions">
      <fieldset v-for="question in questions" :key="question.key" :data-school="question.key">
        <legend>{{ question.question }}</legend>
        <div
          v-for="school in question.schools"
          :key="school.key"
          class="school"
          :class="{ chosen: schools[question.key] === school.key }"
        >
          <BFormRadio v-model="schools[question.key]" :name="`schools.${question.key}`" :value="school.key">
            <strong>{{ school.name }}</strong>
            <span class="soft">{{ school.why }}</span>
          </BFormRadio>
        </div>
      </fieldset>
    </div>
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
.school .soft {
  font-size: var(--type-small);
}
.chosen .soft {
  color: var(--peat);
}
@include at.phone {
  .questions {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
