<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, reactive, ref } from 'vue';

import { answer, api, Refused } from '@/api/client';
import type { ShelfRequest } from '@/api/types';
import { useLeaveGuard } from '@/asking/useLeaveGuard';
import ChoiceField from '@/parts/ChoiceField.vue';
import LengthField from '@/parts/LengthField.vue';
import NumberField from '@/parts/NumberField.vue';
import TextField from '@/parts/TextField.vue';
import TickField from '@/parts/TickField.vue';
import { vSay } from '@/said/say';
import { useUnits } from '@/units/useUnits';

import { massUnit, asGrams } from './amounts';
import type { Shelf } from './useShelf';

/** A travel case that the studio has, measured and weighed, put on the shelf by hand. */
const { shelf, boards } = defineProps<{ shelf: Shelf; boards: { value: string; text: string }[] }>();
const emit = defineEmits<{ done: [] }>();
const { unit } = useUnits();

const EMPTY = {
  name: '',
  place: '',
  board: '',
  length: '',
  width: '',
  depth: '',
  lining: '',
  outside_length: '',
  outside_width: '',
  outside_depth: '',
};
const typed = reactive({ ...EMPTY });
const empty = ref<number | null>(null);
const screws = ref<number | null>(null);
const treated = ref(false);
const errors = ref<Record<string, string>>({});
const busy = ref(false);
const changed = computed(() => JSON.stringify(typed) !== JSON.stringify(EMPTY));

const SIDES = [
  ['length', 'Long, between the linings'],
  ['width', 'Wide, between the linings'],
  ['depth', 'Deep, between the linings'],
  ['lining', 'Lining, thick'],
  ['outside_length', 'Long, outside'],
  ['outside_width', 'Wide, outside'],
  ['outside_depth', 'Deep, outside'],
] as const;

async function put(): Promise<void> {
  errors.value = {};
  busy.value = true;
  try {
    const texts = Object.fromEntries(SIDES.map(([key]) => [`${key}_mm`, typed[key]]));
    const { lengths_mm: sides } = await answer(
      api.POST('/api/v1/measures/lengths', { body: { texts, unit: unit.value } }),
    );
    const { name, place, board } = typed;
    const about = {
      board,
      empty_g: asGrams(empty.value ?? 0),
      lid_screws: screws.value ?? 0,
      treated: treated.value,
    };
    const done = await shelf.put({
      kind: 'case',
      name,
      place,
      left: 1,
      ...about,
      ...sides,
    } as unknown as ShelfRequest);
    errors.value = shelf.errors.value;
    if (!done) return;
    Object.assign(typed, EMPTY);
    emit('done');
  } catch (error) {
    errors.value =
      error instanceof Refused ? error.fields : { away: 'the server can’t be reached: try again' };
  } finally {
    busy.value = false;
  }
}
useLeaveGuard(() => (changed.value ? 'what you typed about this case' : undefined));
</script>

<template>
  <form class="panel" @submit.prevent="put">
    <h2>A travel case for the shelf</h2>
    <div class="fields">
      <LengthField
        v-for="[key, label] in SIDES"
        :key="key"
        v-model="typed[key]"
        :label="label"
        :name="`${key}_mm`"
        :error="errors[`${key}_mm`]"
      />
      <ChoiceField
        v-model="typed.board"
        label="Board of its faces"
        name="board"
        :choices="boards"
        empty="choose"
        :error="errors['board']"
      />
      <NumberField
        v-model="empty"
        :label="`Empty weight (${massUnit()})`"
        name="empty_g"
        :error="errors['empty_g']"
      />
      <NumberField
        v-model="screws"
        label="Screws of its lid"
        name="lid_screws"
        :error="errors['lid_screws']"
      />
      <TextField v-model="typed.name" label="Written on it" name="name" :error="errors['name']" />
      <TextField v-model="typed.place" label="Where it stands" name="place" :error="errors['place']" />
      <TickField v-model="treated" label="Its battens are heat-treated and stamped" name="treated" />
    </div>
    <p v-if="errors['away']" v-say class="notice">{{ errors['away'] }}</p>
    <BButton type="submit" variant="primary" :disabled="busy">Put it on the shelf</BButton>
  </form>
</template>

<style scoped>
form {
  padding: 8px 16px 16px;
  margin: 8px 0;
}
h2 {
  margin: 0 0 8px;
  font-size: var(--type-strong);
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 8px 12px;
  margin-bottom: 8px;
}
</style>
