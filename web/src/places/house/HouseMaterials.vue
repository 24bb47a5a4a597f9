<script setup lang="ts">
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect';
import { computed } from 'vue';

import type { Catalogue } from '@/api/types';
import { vSay } from '@/said/say';

const { catalogue, errors } = defineProps<{ catalogue: Catalogue; errors: Record<string, string> }>();
const materials = defineModel<Record<string, string>>({ required: true });

type Shelf =
  | 'contact_papers'
  | 'boards'
  | 'cushion_wraps'
  | 'fills'
  | 'tapes'
  | 'foams'
  | 'films'
  | 'slip_on_corners'
  | 'sundries';

/** What each is for, and the shelf it comes from, in the order of the work. */
const USES: readonly { field: string; name: string; shelf: Shelf | 'flat' }[] = [
  { field: 'contact_paper', name: 'Against the art', shelf: 'contact_papers' },
  { field: 'parchment_paper', name: 'Against the art, where it lets go', shelf: 'contact_papers' },
  { field: 'glazing_paper', name: 'Over glass and acrylic', shelf: 'contact_papers' },
  { field: 'glass_tape', name: 'On the glass', shelf: 'tapes' },
  { field: 'hinge_tape', name: 'Hinges through the board behind', shelf: 'tapes' },
  { field: 'spacer_board', name: 'Window spacer', shelf: 'boards' },
  { field: 'folio_board', name: 'Folio, and between like pieces', shelf: 'boards' },
  { field: 'pocket_board', name: 'Corner pockets', shelf: 'boards' },
  { field: 'slip_on_corner', name: 'Slip-on corners', shelf: 'slip_on_corners' },
  { field: 'back_foam', name: 'Behind a canvas', shelf: 'foams' },
  { field: 'face_board', name: 'Face boards', shelf: 'boards' },
  { field: 'stretch_film', name: 'Stretch film', shelf: 'films' },
  { field: 'bag_film', name: 'Sealed bag', shelf: 'films' },
  { field: 'name_tag', name: 'Name tag', shelf: 'sundries' },
  { field: 'cushion_wrap', name: 'Cushion wrap', shelf: 'cushion_wraps' },
  { field: 'pad_foam', name: 'Pads and blocks', shelf: 'foams' },
  { field: 'outer_board', name: 'Boards outside the cushion', shelf: 'boards' },
  { field: 'fill', name: 'Fill', shelf: 'fills' },
  { field: 'roll_paper', name: 'Rolled along the edges', shelf: 'contact_papers' },
  { field: 'spring_board', name: 'Springs along the edges', shelf: 'boards' },
  { field: 'padding_sheet', name: 'Flat behind, in a deep box', shelf: 'flat' },
  { field: 'lining_foam', name: 'Lining of the box', shelf: 'foams' },
  { field: 'box_board', name: 'Box', shelf: 'boards' },
  { field: 'label', name: 'Handling marks', shelf: 'sundries' },
  { field: 'outer_paper', name: 'Around the closed box', shelf: 'contact_papers' },
  { field: 'inner_tape', name: 'Tape inside', shelf: 'tapes' },
  { field: 'masking_tape', name: 'Tape inside, to be peeled', shelf: 'tapes' },
  { field: 'wrap_tape', name: 'Tape on the wrap', shelf: 'tapes' },
  { field: 'seal_tape', name: 'Tape on the box', shelf: 'tapes' },
  { field: 'filament_tape', name: 'Around where two halves meet', shelf: 'tapes' },
  { field: 'paper_seal_tape', name: 'Paper tape on the box', shelf: 'tapes' },
];

interface Stocked {
  id: string;
  name: string;
  shelf?: { retired?: boolean };
}

/** What a use is chosen from; whatever lies flat comes from three shelves. */
function stocked(shelf: Shelf | 'flat'): Stocked[] {
  if (shelf !== 'flat') return catalogue[shelf] ?? [];
  return [...stocked('cushion_wraps'), ...stocked('foams'), ...stocked('boards')];
}

/** A retired material is offered only where it stands already. */
const uses = computed(() =>
  USES.map((use) => ({
    ...use,
    choices: stocked(use.shelf).filter(
      ({ id, shelf }) => shelf?.retired !== true || materials.value[use.field] === id,
    ),
  })),
);
</script>

<template>
  <section>
    <h2>Materials taken first</h2>
    <div class="uses">
      <label v-for="use in uses" :key="use.field">
        <span>{{ use.name }}</span>
        <BFormSelect v-model="materials[use.field]" :name="`materials.${use.field}`">
          <option v-for="{ id, name } in use.choices" :key="id" :value="id">{{ name }}</option>
        </BFormSelect>
        <span v-if="errors[`materials.${use.field}`]" v-say class="error">
          {{ errors[`materials.${use.field}`] }}
        </span>
      </label>
    </div>
  </section>
</template>

<style scoped lang="scss">
@use '@/styles/at';

h2 {
  margin: 20px 0 4px;
  font-size: var(--type-lead);
}
.uses {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(380px, 1fr));
  gap: 4px 20px;
}
label {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 236px;
  gap: 0 8px;
  align-items: center;
}
.error {
  grid-column: 1 / 3;
  color: var(--rowan);
}
.form-select {
  min-height: 44px;
  padding-block: 3px;
  font-size: var(--type-small);
}
@include at.phone {
  .uses {
    grid-template-columns: minmax(0, 1fr);
  }
  label {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
