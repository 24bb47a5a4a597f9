<script setup lang="ts">
import { computed } from 'vue';

import type { Layer } from '@/api/types';
import LengthField from '@/parts/LengthField.vue';
import NumberField from '@/parts/NumberField.vue';
import TurnsStepper from '@/parts/TurnsStepper.vue';
import { useShipment } from '@/shipment/useShipment';
import { useUnits } from '@/units/useUnits';

import { useHouse } from './useHouse';

const { layer } = defineProps<{ layer: Layer }>();
const { id, draft, errors } = useShipment();
const house = useHouse();
const units = useUnits();

type Turns = 'first_turns' | 'second_turns';
type LengthKey =
  | 'board_proud'
  | 'pocket_leg'
  | 'pad_thickness'
  | 'edge_pad_thickness'
  | 'block_thickness'
  | 'block_leg'
  | 'clearance'
  | 'depth_clearance'
  | 'second_gap'
  | 'roll_inner';

interface LengthControl {
  key: LengthKey;
  label: string;
  /** What stands there while nothing is chosen. */
  stands: string;
  hint?: string;
}

const turnsKey = computed<Turns | undefined>(() => {
  if (layer.slot === 'first_wrap') return 'first_turns';
  return layer.slot === 'second_wrap' ? 'second_turns' : undefined;
});
const turns = computed(() => (layer.make.kind === 'wrap' ? layer.make.turns : 0));

/** A choice that is what the house does anyway is no choice. */
function setTurns(key: Turns, value: number): void {
  draft.choices[key] = value === house.rule(key) ? null : value;
}

const AT_BOX: Record<string, string> = { tube: 'The tube is at Box', mailer: 'The mailer is at Box' };

const byHouse = (key: string) => `house rule: ${house.length(key)}`;

const lengths = computed<LengthControl[]>(() => {
  const { make, slot } = layer;
  switch (make.kind) {
    case 'card_pockets':
      return [
        {
          key: 'pocket_leg',
          label: 'Leg',
          stands: units.length(make.leg_mm),
          hint: 'empty: an eighth of the short side',
        },
      ];
    case 'face_boards':
      return slot === 'face_boards'
        ? [
            {
              key: 'board_proud',
              label: 'Proud margin',
              stands: units.length(make.proud_mm),
              hint: byHouse('board_proud_mm'),
            },
          ]
        : [];
    case 'face_pads':
      return [
        {
          key: 'pad_thickness',
          label: 'Thickness',
          stands: units.length(make.thickness_mm),
          hint: byHouse('pad_thickness_mm'),
        },
      ];
    case 'edge_pads':
      return [
        {
          key: 'edge_pad_thickness',
          label: 'Thickness',
          stands: units.length(make.thickness_mm),
          hint: byHouse('edge_pad_thickness_mm'),
        },
      ];
    case 'corner_blocks':
      return [
        {
          key: 'block_thickness',
          label: 'Thickness',
          stands: units.length(make.thickness_mm),
          hint: byHouse('block_thickness_mm'),
        },
        {
          key: 'block_leg',
          label: 'Leg',
          stands: units.length(make.leg_mm),
          hint: 'empty: twice the thickness',
        },
      ];
    case 'edge_fill':
      return slot === 'second_fill'
        ? [{ key: 'second_gap', label: 'Gap on each side', stands: house.length('second_gap_mm') }]
        : [
            {
              key: 'clearance',
              label: 'Room at each edge',
              stands: units.length(make.clearance_mm),
              hint: byHouse('clearance_mm'),
            },
            {
              key: 'depth_clearance',
              label: 'Room behind',
              stands: units.length(make.behind_mm),
              hint: byHouse('depth_clearance_mm'),
            },
          ];
    case 'roll':
      return [
        {
          key: 'roll_inner',
          label: 'Inner diameter',
          stands: units.length(make.inner_mm),
          hint: 'empty: by the surface',
        },
      ];
    default:
      return [];
  }
});

/** How like pieces lie, across and up. */
function setGrid(place: 0 | 1, value: number): void {
  if (layer.make.kind !== 'bundle') return;
  const grid: number[] = [layer.make.across, layer.make.up];
  grid[place] = value;
  draft.choices.set_grid = grid;
}
</script>

<template>
  <div class="controls">
    <TurnsStepper
      v-if="turnsKey"
      label="Turns"
      :least="Math.max(1, house.least(turnsKey))"
      :most="house.most(turnsKey)"
      :shown="turns"
      @set="setTurns(turnsKey, $event)"
    />
    <LengthField
      v-for="control in lengths"
      :key="control.key"
      v-model="draft.choices[control.key]"
      :label="control.label"
      :name="`choices.${control.key}`"
      :placeholder="control.stands"
      :error="errors[`choices.${control.key}`]"
      :hint="control.hint"
    />
    <NumberField
      v-if="layer.make.kind === 'face_pads'"
      v-model="draft.choices.pad_area_cm2"
      label="Area on one side, cm²"
      name="choices.pad_area_cm2"
      placeholder="the whole face"
      hint="as four pads at the corners"
      :error="errors['choices.pad_area_cm2']"
    />
    <template v-if="layer.make.kind === 'bundle'">
      <TurnsStepper
        label="Side by side"
        unit="piece"
        :least="1"
        :most="12"
        :shown="layer.make.across"
        @set="setGrid(0, $event)"
      />
      <TurnsStepper
        label="One above the other"
        unit="piece"
        :least="1"
        :most="12"
        :shown="layer.make.up"
        @set="setGrid(1, $event)"
      />
    </template>
    <RouterLink v-if="layer.slot === 'box'" :to="{ name: 'box', params: { id } }">
      {{ AT_BOX[layer.make.kind] ?? 'Its blank and cut list are at Box' }}
    </RouterLink>
  </div>
</template>

<style scoped>
.controls {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 4px 16px;
  margin-bottom: 6px;
}
</style>
