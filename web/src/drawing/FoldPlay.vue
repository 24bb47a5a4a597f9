<script setup lang="ts">
import { keepPreviousData } from '@tanstack/vue-query';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput';
import { BFormRadioGroup } from 'bootstrap-vue-next/components/BFormRadio';
import { computed, defineAsyncComponent, ref } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import type { BoxSum } from '@/api/types';
import { capital } from '@/words/grammar';

import { useFolding } from './useFolding';

/** A box folded step by step: as text, and in space for who sees it. */
const { box } = defineProps<{ box: BoxSum }>();

/** So many pictures a step are close enough to play. */
const FRAMES = 12;
const FoldPicture = defineAsyncComponent(() => import('./FoldPicture.vue'));

const { data, away, refused } = useRead({
  queryKey: computed(() => ['fold', box]),
  queryFn: ({ signal }) => answer(api.POST('/api/v1/sums/box', { body: { ...box, frames: FRAMES }, signal })),
  placeholderData: keepPreviousData,
});
const part = ref(0);
/** Only what is folded: a lid is flat. */
const parts = computed(() =>
  (data.value?.folding ?? [])
    .map((each, value) => ({ each, value }))
    .filter(({ each }) => each.frames.length > 1),
);
const names = computed(() => parts.value.map(({ each, value }) => ({ value, text: capital(each.name) })));
const folding = computed(
  () => (parts.value.find(({ value }) => value === part.value) ?? parts.value[0])?.each,
);
const blank = computed(() => data.value?.blanks.find((each) => each.part === folding.value?.part));
const { at, last, steps, step, picture, playing, play, pause, goTo } = useFolding(folding);
const unseen = ref(false);
const scrubbed = computed({
  get: () => at.value,
  set: (to) => {
    pause();
    at.value = Number(to);
  },
});
</script>

<template>
  <section class="fold no-print" aria-label="Folding" data-test="folding">
    <p v-if="refused" class="soft">It can’t be folded: {{ refused.message }}.</p>
    <p v-else-if="away" class="soft">How it folds can’t be worked out just now.</p>
    <p v-else-if="!folding || !blank" class="soft">Folding it</p>
    <template v-else>
      <BFormRadioGroup
        v-if="names.length > 1"
        v-model="part"
        :options="names"
        buttons
        size="sm"
        name="fold-part"
        aria-label="Which part"
      />
      <div class="side-by-side">
        <div>
          <FoldPicture
            v-if="!unseen"
            :blank="blank"
            :frames="folding.frames"
            :caliper="box.caliper_mm"
            :at="picture"
            @unseen="unseen = true"
          />
          <p v-else class="soft">This machine draws nothing in space: the steps beside say the same.</p>
          <div class="play">
            <BButton size="sm" @click="playing ? pause() : play()">{{ playing ? 'Stop' : 'Play' }}</BButton>
            <BFormInput
              v-model="scrubbed"
              type="range"
              class="form-range"
              min="0"
              :max="last"
              step="0.05"
              name="fold-at"
              aria-label="How far it is folded"
              :aria-valuetext="steps[step]?.says"
            />
          </div>
        </div>
        <div>
          <ol>
            <li v-for="(each, place) in steps" :key="place">
              <button type="button" :aria-current="place === step ? 'step' : undefined" @click="goTo(place)">
                {{ each.says }}
              </button>
            </li>
          </ol>
          <p v-if="folding.closes" class="proof" data-test="proof">
            It closes: no panel passes through another<template v-if="folding.into_inside_mm != null"
              >, and all of the inside stays free</template
            >.
          </p>
          <p v-else class="proof stop" data-test="proof">
            It does not close: a panel passes {{ folding.through_mm.toFixed(1) }} mm through another.
          </p>
        </div>
      </div>
    </template>
  </section>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.side-by-side {
  display: grid;
  grid-template-columns: minmax(0, 1.6fr) minmax(200px, 1fr);
  gap: 16px;
}
.play {
  display: flex;
  gap: 12px;
  align-items: center;
}
.form-range {
  flex: auto;
  width: 100%;
  min-height: 44px;
  padding: 0;
  border: 0;
  background: none;
  accent-color: var(--moss);
}
ol {
  margin: 0;
  padding: 0;
  list-style: none;
  counter-reset: step;
}
li {
  counter-increment: step;
}
li button {
  display: flex;
  gap: 10px;
  width: 100%;
  min-height: 44px;
  padding: 8px 10px;
  border: 0;
  border-left: 4px solid transparent;
  background: none;
  color: var(--peat);
  line-height: 1.3;
  text-align: left;
}
li button::before {
  font-weight: 600;
  content: counter(step);
}
li button[aria-current] {
  border-left-color: var(--heather);
  background: var(--paper);
}
.proof {
  margin: 8px 10px;
  color: var(--moss);
  font-weight: 600;
}
.stop {
  color: var(--rowan);
}
@include at.tablet {
  .side-by-side {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
