<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import DraftField from '@/parts/DraftField.vue';
import { useShipment } from '@/shipment/useShipment';
import { useHouse } from '@/stops/guard/useHouse';

/** A carton that the studio has, measured inside: the box is made out of it. */
const { draft, errors, save } = useShipment();
const house = useHouse();

const SIDES = ['choices.saved_length', 'choices.saved_width', 'choices.saved_height'] as const;
const typed = computed(() => {
  const { saved_length, saved_width, saved_height } = draft.choices;
  return Boolean(saved_length || saved_width || saved_height);
});
const open = computed(() => typed.value || SIDES.some((path) => errors.value[path]));

function giveUp(): void {
  Object.assign(draft.choices, { saved_length: '', saved_width: '', saved_height: '', saved_cut: '' });
  void save();
}
</script>

<template>
  <section class="saved no-print" aria-label="A carton you have">
    <details :open="open">
      <summary>Or a carton you have</summary>
      <p class="soft">
        One that opens on its large side, measured inside. It is filled, cut down or given a sleeve.
      </p>
      <div class="sides">
        <DraftField v-for="path in SIDES" :key="path" :path="path" hint="" />
        <BButton v-if="typed" class="give-up" variant="outline-secondary" @click="giveUp"
          >Cut a box instead</BButton
        >
      </div>
      <div v-if="typed" class="sides of">
        <DraftField
          path="choices.box_board"
          label="Its board"
          :codes="house.boxBoards.value"
          empty="House rule"
        />
        <DraftField path="choices.saved_cut" empty="Its depth" />
      </div>
    </details>
  </section>
</template>

<style scoped>
.saved {
  margin-bottom: 4px;
}
summary {
  min-height: 44px;
  padding-top: 10px;
  font-weight: 600;
  cursor: pointer;
}
p {
  max-width: 640px;
  margin: 0 0 4px;
}
.sides {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 130px)) auto;
  gap: 8px;
  align-items: start;
  justify-content: start;
}
.of {
  grid-template-columns: repeat(2, minmax(0, 260px));
}
.give-up {
  align-self: center;
}
@media (max-width: 640px) {
  .sides:not(.of) {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
}
</style>
