<script setup lang="ts">
import { computed } from 'vue';

import MovePicture from '@/drawing/MovePicture.vue';
import { usePacking } from '@/stops/pack/usePacking';

/** How a container is made ready, loaded, closed and sealed: act by act, as Pack leads it. */
const { place = 'box' } = defineProps<{ place?: 'box' | 'second_box' }>();
const { steps } = usePacking();

const PHASES = ['sides', 'frame', 'faces', 'layer', 'in', 'close', 'seal'] as const;
const told = computed(() => {
  let n = 0;
  return PHASES.flatMap((phase) => steps.value.filter(({ key }) => key === `${phase}/${place}`)).map(
    (step) => ({
      key: step.key,
      title: step.title,
      from: n + 1,
      acts: (step.acts ?? []).map((act) => ({ ...act, n: (n += 1) })),
    }),
  );
});
</script>

<template>
  <div class="acts" data-test="acts">
    <section v-for="step in told" :key="step.key">
      <h3>{{ step.title }}</h3>
      <ol :start="step.from">
        <li v-for="act in step.acts" :key="act.n">
          {{ act.says }}
          <div v-if="act.picture" class="picture">
            <MovePicture :picture="act.picture" :says="act.says" />
          </div>
        </li>
      </ol>
    </section>
  </div>
</template>

<style scoped>
h3 {
  margin: 12px 0 4px;
  font-size: var(--type-strong);
}
ol {
  margin: 0;
  padding-left: 28px;
}
li {
  margin-bottom: 4px;
}
.picture {
  width: 220px;
  max-width: 100%;
  height: 150px;
  margin: 4px 0 8px;
}
</style>
