<script setup lang="ts">
import { useTemplateRef, watch } from 'vue';

import type { PackStepView } from '@/api/types';

import { titleOf } from './steps';
import type { usePacking } from './usePacking';

/** All steps beside the one that is done now. */
const { steps, standing, place } = defineProps<{
  steps: PackStepView[];
  standing: ReturnType<typeof usePacking>['standing'];
  place: number;
}>();
const emit = defineEmits<{ go: [to: number] }>();
const list = useTemplateRef<HTMLElement>('list');
/** The step that is done now stays in view. */
watch(
  () => place,
  (at) => {
    const rail = list.value;
    const item = rail?.children[at];
    // The rail alone moves: the page stays where it is.
    if (rail && item instanceof HTMLElement)
      rail.scrollTop = item.offsetTop - rail.offsetTop - (rail.clientHeight - item.clientHeight) / 2;
  },
  { flush: 'post', immediate: true },
);
</script>

<template>
  <ol ref="list" class="steps" aria-label="Steps">
    <li v-for="(one, at) in steps" :key="one.key" :class="[`is-${standing(one)}`, { here: at === place }]">
      <button
        type="button"
        :data-key="one.key"
        :aria-current="at === place ? 'step' : undefined"
        @click="emit('go', at)"
      >
        <span class="mark" aria-hidden="true">{{
          standing(one) === 'done' ? '✓' : standing(one) === 'touched' ? '↻' : ''
        }}</span>
        <span class="title">{{ titleOf(one) }}</span>
        <span class="visually-hidden"
          >{{ standing(one) === 'done' ? ', done' : standing(one) === 'touched' ? ', to be done again' : '' }}
        </span>
        <span v-if="at === place" class="figure">now</span>
        <span v-else-if="one.minutes >= 0.5" class="figure">{{ one.minutes.toFixed(0) }} min</span>
      </button>
    </li>
  </ol>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.steps {
  flex: 1 1 0;
  min-height: 0;
  margin: 0;
  padding: 0 12px 0 0;
  overflow-y: auto;
  border-right: 2px solid var(--peat);
  list-style: none;
}
.steps button {
  display: flex;
  gap: 8px;
  align-items: baseline;
  width: 100%;
  min-height: 44px;
  padding: 4px 8px;
  border: 0;
  border-bottom: 1px solid var(--sedge);
  background: none;
  color: var(--peat);
  text-align: left;
}
.steps .title {
  flex: 1;
}
.steps .is-done button {
  color: var(--peat-soft);
}
.steps .here button {
  border-left: 4px solid var(--heather);
  background: var(--lichen);
  color: var(--peat);
  font-weight: 600;
}
.mark {
  width: 16px;
  color: var(--moss);
  font-weight: 700;
}
.is-touched .mark {
  color: var(--amber-moss);
}
@include at.tablet {
  .steps {
    display: none;
  }
}
</style>
