<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import { counted } from '@/words/grammar';
import { OPENS, SAVED_CUTS, SAVED_FACES } from '@/words/vocabulary';
import DraftField from '@/parts/DraftField.vue';
import { useShipment } from '@/shipment/useShipment';
import { useHouse } from '@/stops/guard/useHouse';

import PileFits from './PileFits.vue';
import { usePile } from './usePile';

/** A carton that the studio has, measured inside: the box is made out of it. */
const { draft, errors, save } = useShipment();
const house = useHouse();

const SIDES = ['choices.saved_length', 'choices.saved_width', 'choices.saved_height'] as const;
const typed = computed(() => {
  const { saved_length, saved_width, saved_height } = draft.choices;
  return Boolean(saved_length || saved_width || saved_height);
});
const SECOND = [
  'choices.second_saved_length',
  'choices.second_saved_width',
  'choices.second_saved_height',
] as const;
const two = computed(() => {
  const { second_saved_length, second_saved_width, second_saved_height } = draft.choices;
  return Boolean(second_saved_length || second_saved_width || second_saved_height);
});
/** Its sides are typed here; those of one from the pile are known. */
const ofThePile = computed(() => typed.value && Boolean(draft.choices.saved_from));
const { fits } = usePile();
const says = computed(() => {
  const would = fits.value?.filter(({ refused }) => !refused).length ?? 0;
  return would > 0
    ? `Or use a saved carton: ${counted(would, 'saved carton')} ${would === 1 ? 'fits' : 'fit'}`
    : 'Or use a saved carton';
});
const open = computed(() => typed.value || SIDES.some((path) => errors.value[path]));

/** The first of a list stands for nothing chosen, until it was chosen itself, as one of the pile does. */
function ofList(list: readonly { value: string; text: string }[], chosen: string) {
  return chosen ? { codes: list } : { codes: list.slice(1), empty: list[0]?.text };
}

function giveUp(): void {
  Object.assign(draft.choices, {
    saved_length: '',
    saved_width: '',
    saved_height: '',
    saved_opens: '',
    saved_cut: '',
    saved_face: '',
    saved_from: '',
    saved_carrier: '',
    second_saved_length: '',
    second_saved_width: '',
    second_saved_height: '',
    second_saved_from: '',
  });
  void save();
}
</script>

<template>
  <section class="saved no-print" aria-label="A carton you have">
    <details :open="open">
      <summary>{{ says }}</summary>
      <PileFits />
      <p v-if="!ofThePile" class="soft">
        One that is not on the pile, measured inside: the two sides of its opening, then how deep. It is
        filled, cut down or given a sleeve.
      </p>
      <div class="sides">
        <template v-if="!ofThePile">
          <DraftField v-for="path in SIDES" :key="path" :path="path" hint="" />
        </template>
        <BButton v-if="typed" class="give-up" variant="outline-secondary" @click="giveUp"
          >Cut a box instead</BButton
        >
      </div>
      <details v-if="typed && !ofThePile" :open="two">
        <summary>Too short? Push a second carton into it</summary>
        <p class="soft">An end of each is cut off. Both are counted as the first one’s board.</p>
        <div class="sides">
          <DraftField v-for="path in SECOND" :key="path" :path="path" hint="" />
        </div>
      </details>
      <div v-if="typed" class="sides of">
        <DraftField
          v-if="!ofThePile"
          path="choices.saved_opens"
          v-bind="ofList(OPENS, draft.choices.saved_opens)"
        />
        <DraftField
          v-if="!ofThePile"
          path="choices.box_board"
          label="Its board"
          :codes="house.boxBoards.value"
          empty="House rule"
        />
        <DraftField
          v-if="!two"
          path="choices.saved_cut"
          v-bind="ofList(SAVED_CUTS, draft.choices.saved_cut)"
        />
        <DraftField path="choices.saved_face" v-bind="ofList(SAVED_FACES, draft.choices.saved_face)" />
      </div>
    </details>
  </section>
</template>

<style scoped lang="scss">
@use '@/styles/at';

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
@include at.phone {
  .sides:not(.of) {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
}
</style>
