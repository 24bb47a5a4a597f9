<script setup lang="ts">
import { BFormCheckboxGroup } from 'bootstrap-vue-next/components/BFormCheckbox';
import { computed } from 'vue';

import { useShipment } from '@/shipment/useShipment';

/** The sides of the box that a lining lies on; all six are no choice. */
const { draft, errors, save } = useShipment();

const SIDES = [
  { value: 'front', text: 'front' },
  { value: 'back', text: 'behind' },
  { value: 'left', text: 'left' },
  { value: 'right', text: 'right' },
  { value: 'top', text: 'top' },
  { value: 'bottom', text: 'floor' },
];
const chosen = computed({
  get: () => draft.choices.lining_sides ?? SIDES.map(({ value }) => value),
  set: (sides: string[]) => {
    draft.choices.lining_sides = sides.length === SIDES.length ? null : sides;
    void save();
  },
});
const error = computed(() => errors.value['choices.lining_sides']);
</script>

<template>
  <fieldset>
    <legend>Sides of the box that it lies on</legend>
    <BFormCheckboxGroup v-model="chosen" :options="SIDES" name="choices.lining_sides" />
    <p v-if="error" class="refused">{{ error }}</p>
  </fieldset>
</template>

<style scoped>
fieldset {
  grid-column: 1 / -1;
}
legend {
  margin: 0 0 2px;
  font-size: var(--type-small);
}
.refused {
  margin: 0;
  color: var(--rowan);
}
</style>
