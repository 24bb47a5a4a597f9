<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import DraftField from '@/parts/DraftField.vue';
import { layersTo } from '@/shipment/layers';
import { useShipment } from '@/shipment/useShipment';
import { useUnits } from '@/units/useUnits';

import { measuredBeside } from './wrapped';

/** The sides of the wrapped piece: as the sums say, or as the tape read them, from which the box is made anew. */
const { draft, plan, save } = useShipment();
const units = useUnits();

const SIDES = [
  { path: 'choices.wrapped_across', side: 'across_mm' },
  { path: 'choices.wrapped_up', side: 'up_mm' },
  { path: 'choices.wrapped_through', side: 'through_mm' },
] as const;

const wrapped = computed(() => plan.value?.wrapped ?? undefined);
/** What lies inside the box before it is filled, by the sums. */
const bySums = computed(() => {
  const inner = plan.value && layersTo(plan.value, 'wrap_film');
  return wrapped.value?.predicted ?? inner?.at(-1)?.envelope;
});
const first = computed(() => plan.value?.schools.cutting === 'wrap_first');
const says = computed(() => wrapped.value && measuredBeside(wrapped.value, units));

function takeBack(): void {
  Object.assign(draft.choices, { wrapped_across: '', wrapped_up: '', wrapped_through: '' });
  void save();
}
</script>

<template>
  <section v-if="bySums" class="wrapped" aria-label="The wrapped piece">
    <h3>Wrapped, then measured</h3>
    <p v-if="says">{{ says }}</p>
    <p v-else class="soft">
      {{
        first
          ? 'Wrap it, lay a tape to it, and cut the box to what it reads.'
          : 'Cut from the sums; measure where the wrap came out otherwise.'
      }}
    </p>
    <div class="sides">
      <DraftField
        v-for="{ path, side } in SIDES"
        :key="path"
        :path="path"
        :placeholder="units.length(bySums[side])"
        hint=""
      />
    </div>
    <BButton v-if="wrapped" size="sm" variant="outline-secondary" class="no-print" @click="takeBack">
      Take the measure back
    </BButton>
  </section>
</template>

<style scoped>
.wrapped {
  margin: 12px 0;
}
h3 {
  margin: 0 0 2px;
  font-size: var(--type-strong);
}
p {
  margin: 0 0 4px;
}
.sides {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 8px;
}
.sides :deep(input) {
  padding-inline: 8px;
}
</style>
