<script setup lang="ts">
import { computed } from 'vue';

import type { Layer, MakeOf } from '@/api/types';
import DraftField from '@/parts/DraftField.vue';
import TurnsStepper from '@/parts/TurnsStepper.vue';
import type { FieldPath } from '@/shipment/fields';
import { useShipment } from '@/shipment/useShipment';
import { useUnits } from '@/units/useUnits';

import LiningSides from './LiningSides.vue';
import { useHouse } from './useHouse';

const { layer } = defineProps<{ layer: Layer }>();
const { id, draft, save } = useShipment();
const house = useHouse();
const units = useUnits();

type Turns = 'first_turns' | 'second_turns';
interface LengthControl {
  path: FieldPath;
  /** What stands there while nothing is chosen. */
  stands: string;
}

const turnsKey = computed<Turns | undefined>(() => {
  if (layer.slot === 'first_wrap') return 'first_turns';
  return layer.slot === 'second_wrap' ? 'second_turns' : undefined;
});
const turns = computed(() => (layer.make.kind === 'wrap' ? layer.make.turns : 0));

/** A choice that is what the house does anyway is no choice. */
function setTurns(key: Turns, value: number): void {
  draft.choices[key] = value === house.rule(key) ? null : value;
  void save();
}

const AT_BOX: Record<string, string> = { tube: 'The tube is at Box', mailer: 'The mailer is at Box' };

/** How far the boards stand out; the one behind by itself, where there is one. */
function proud(make: MakeOf<'face_boards'>): LengthControl[] {
  const shown = (mm: number) => units.length(mm);
  const front: LengthControl = { path: 'choices.board_proud', stands: shown(make.proud_mm) };
  return make.behind ? [front, { path: 'choices.back_proud', stands: shown(make.proud_mm) }] : [front];
}
const backBoard = computed(() => layer.make.kind === 'face_boards' && layer.make.behind);

const lengths = computed<LengthControl[]>(() => {
  const { make, slot } = layer;
  const control = (path: FieldPath, mm: number) => ({ path, stands: units.length(mm) });
  switch (make.kind) {
    case 'card_pockets':
      return [control('choices.pocket_leg', make.leg_mm)];
    case 'face_boards':
      return slot === 'face_boards' ? proud(make) : [];
    case 'face_pads':
      return [control('choices.pad_thickness', make.thickness_mm)];
    case 'edge_pads':
      return [control('choices.edge_pad_thickness', make.thickness_mm)];
    case 'corner_blocks':
      return [
        control('choices.block_thickness', make.thickness_mm),
        control('choices.block_leg', make.leg_mm),
      ];
    case 'edge_fill':
      return slot === 'second_fill'
        ? [control('choices.second_gap', make.clearance_mm)]
        : [
            control('choices.clearance', make.clearance_mm),
            control('choices.depth_clearance', make.behind_mm),
          ];
    case 'lining':
      return [control('choices.lining_thickness', make.thickness_mm)];
    case 'padding_sheets':
      return [control('choices.depth_clearance', make.gap_mm)];
    case 'roll':
      return [control('choices.roll_inner', make.inner_mm)];
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
  void save();
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
    <DraftField
      v-for="control in lengths"
      :key="control.path"
      :path="control.path"
      :placeholder="control.stands"
    />
    <DraftField
      v-if="layer.make.kind === 'face_pads'"
      path="choices.pad_area_cm2"
      placeholder="the whole face"
    />
    <DraftField
      v-if="backBoard && layer.slot === 'face_boards'"
      path="choices.back_board"
      :codes="house.allBoards.value"
      empty="As the one in front"
    />
    <LiningSides v-if="layer.make.kind === 'lining'" />
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
