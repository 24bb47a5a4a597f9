<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BModal } from 'bootstrap-vue-next/components/BModal';
import { computed } from 'vue';

import { answerAsked, useAsking } from './ask';

/** The one dialog that asks before something is lost. */
const { open } = useAsking();
const question = computed(() => open.value?.question);
</script>

<template>
  <BModal
    :model-value="question !== undefined"
    :title="question?.title ?? ''"
    no-footer
    @hidden="answerAsked(false)"
  >
    <template v-if="question">
      <p>{{ question.says }}</p>
      <div class="acts">
        <BButton variant="primary" @click="answerAsked(false)">{{ question.stay }}</BButton>
        <BButton @click="answerAsked(true)">{{ question.goOn }}</BButton>
      </div>
    </template>
  </BModal>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
}
</style>
