<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';

import type { BoxSum, Layer, Plan } from '@/api/types';
import BlankDrawing from '@/drawing/BlankDrawing.vue';
import FoldPlay from '@/drawing/FoldPlay.vue';
import RollDrawing from '@/drawing/RollDrawing.vue';
import { useUnits } from '@/units/useUnits';

import BoxActs from './BoxActs.vue';

const { plan, layer } = defineProps<{ plan: Plan; layer: Layer }>();
const units = useUnits();

const tube = computed(() => (layer.make.kind === 'tube' ? layer.make : undefined));
const folds = ref(false);
/** What is asked to fold it: its roll, and what is around that. */
const box = computed((): BoxSum => {
  const roll = plan.layers.map(({ make }) => make).find((make) => make.kind === 'roll');
  const wrap = plan.layers.find(({ slot }) => slot === 'first_wrap');
  return {
    style: 'triangular-tube',
    length_mm: roll?.along_mm ?? 0,
    outer_roll_mm: roll?.outer_mm ?? 0,
    sheet_mm: roll?.thickness_mm ?? 0,
    wrap_mm: wrap?.adds.left_mm ?? 0,
    caliper_mm: tube.value?.wall_mm ?? 0,
  };
});
</script>

<template>
  <div v-if="tube" class="tube">
    <section>
      <h2>{{ tube.triangular ? 'Triangular tube, folded from board' : layer.material_name }}</h2>
      <p>{{ layer.why }}</p>
      <dl class="figure">
        <dt>{{ tube.triangular ? 'inner side' : 'inside' }}</dt>
        <dd>{{ units.length(tube.inside_mm) }}, at least {{ units.length(tube.needed_mm) }}</dd>
        <dt>cut to</dt>
        <dd>{{ units.length(tube.length_mm) }}</dd>
        <dt>each end</dt>
        <dd>
          {{ units.length(tube.end_pad_mm) }} pad, {{ units.length(tube.end_air_mm) }} air before the roll
        </dd>
        <template v-if="tube.triangular">
          <dt>sheet</dt>
          <dd>{{ units.size(tube.sheet_width_mm, tube.length_mm) }} of {{ layer.material_name }}</dd>
          <dt>creases at</dt>
          <dd>
            {{ tube.creases_mm.map((at) => units.number(at)).join(' · ') }}, the last panel laps outside the
            first
          </dd>
        </template>
        <dt>tape</dt>
        <dd>{{ (layer.tape_mm / 1000).toFixed(1) }} m of {{ layer.tape_name }}, around both ends</dd>
      </dl>
      <p v-for="caution in layer.cautions" :key="caution" class="soft">{{ caution }}</p>
      <BoxActs />
    </section>
    <section>
      <h2>Cut across</h2>
      <div class="panel"><RollDrawing :plan="plan" /></div>
      <template v-for="blank in tube.blanks" :key="blank.part">
        <h2>{{ blank.part === 'cap' ? 'Cap, two of them' : 'Sheet of the tube' }}, flat, seen from inside</h2>
        <div class="panel"><BlankDrawing :blank="blank" /></div>
      </template>
      <template v-if="tube.triangular">
        <BButton v-if="!folds" class="no-print" @click="folds = true">Fold it</BButton>
        <FoldPlay v-else :box="box" />
      </template>
    </section>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.tube {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 20px;
  align-items: start;
}
h2 {
  margin: 0 0 4px;
  font-size: var(--type-lead);
}
dl {
  display: grid;
  grid-template-columns: 84px 1fr;
  gap: 4px 12px;
  margin: 0 0 12px;
}
dt {
  color: var(--peat-soft);
  font-weight: 400;
}
dd {
  margin: 0;
}
@include at.tablet {
  .tube {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
