<script setup lang="ts">
import ChoiceField from '@/parts/ChoiceField.vue';
import LengthField from '@/parts/LengthField.vue';
import TurnsStepper from '@/parts/TurnsStepper.vue';
import { useShipment } from '@/shipment/useShipment';
import { useUnits } from '@/units/useUnits';

import type { Slot } from './layerSlots';
import { useHouse } from './useHouse';

const { step } = defineProps<{ step: Slot }>();
const { id, draft, errors } = useShipment();
const house = useHouse();
const units = useUnits();

type Turns = 'first_turns' | 'second_turns';
const turns = (key: Turns) => draft.choices[key] ?? house.rule(key);

/** A choice that is what the house does anyway is no choice. */
function setTurns(key: Turns, value: number): void {
  draft.choices[key] = value === house.rule(key) ? null : value;
}
</script>

<template>
  <div class="controls">
    <template v-if="step.name === 'pockets'">
      <LengthField
        v-model="draft.choices.pocket_leg"
        label="Leg"
        name="choices.pocket_leg"
        :placeholder="step.layer?.make.kind === 'card_pockets' ? units.length(step.layer.make.leg_mm) : ''"
        :error="errors['choices.pocket_leg']"
        hint="empty: an eighth of the short side"
      />
    </template>
    <template v-else-if="step.name === 'boards'">
      <ChoiceField
        v-model="draft.choices.face_board"
        label="Board"
        name="choices.face_board"
        :choices="house.boards.value"
        :empty="`House rule: ${house.boardName(house.materials.value?.face_board)}`"
        :error="errors['choices.face_board']"
      />
      <LengthField
        v-model="draft.choices.board_proud"
        label="Proud margin"
        name="choices.board_proud"
        :placeholder="house.length('board_proud_mm')"
        :error="errors['choices.board_proud']"
        :hint="`house rule: ${house.length('board_proud_mm')}`"
      />
    </template>
    <TurnsStepper
      v-else-if="step.name === 'first_wrap'"
      label="Turns"
      :least="house.least('first_turns')"
      :most="house.most('first_turns')"
      :shown="turns('first_turns')"
      @set="setTurns('first_turns', $event)"
    />
    <TurnsStepper
      v-else-if="step.name === 'second_wrap'"
      label="Turns"
      :least="house.least('second_turns')"
      :most="house.most('second_turns')"
      :shown="turns('second_turns')"
      @set="setTurns('second_turns', $event)"
    />
    <LengthField
      v-else-if="step.name === 'fill'"
      v-model="draft.choices.clearance"
      label="Clearance on each side"
      name="choices.clearance"
      :placeholder="house.length('clearance_mm')"
      :error="errors['choices.clearance']"
      :hint="`house rule: ${house.length('clearance_mm')}`"
    />
    <RouterLink v-else-if="step.name === 'box'" :to="{ name: 'box', params: { id } }">
      Its blank and board are at Box
    </RouterLink>
  </div>
</template>

<style scoped>
.controls {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 0 12px;
}
</style>
