<script setup lang="ts">
import { useLeaveGuard } from '@/asking/useLeaveGuard';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, reactive, ref } from 'vue';

import { answer, api, Refused } from '@/api/client';
import type { ShelfRequest } from '@/api/types';
import ChoiceField from '@/parts/ChoiceField.vue';
import LengthField from '@/parts/LengthField.vue';
import NumberField from '@/parts/NumberField.vue';
import TextField from '@/parts/TextField.vue';
import { OPENS } from '@/words/vocabulary';
import { vSay } from '@/said/say';
import { useUnits } from '@/units/useUnits';

import { CONDITIONS, MARKINGS, ORIGINS } from './pileWords';
import type { Shelf } from './useShelf';

/** A carton, or an offcut, put on the shelf by hand. */
const { shelf, kind, boards } = defineProps<{
  shelf: Shelf;
  kind: 'carton' | 'offcut';
  boards: { value: string; text: string; thick?: boolean }[];
}>();
const emit = defineEmits<{ done: [] }>();
const { unit } = useUnits();

const EMPTY = {
  name: '',
  place: '',
  material: '',
  length: '',
  width: '',
  height: '',
  thickness: '',
  opens: 'face',
  condition: 'sound',
  markings: 'plain',
  origin: 'delivery',
  carrier: '',
};
const typed = reactive({ ...EMPTY });
const left = ref<number | null>(1);
const errors = ref<Record<string, string>>({});
const busy = ref(false);
const changed = computed(() => JSON.stringify(typed) !== JSON.stringify(EMPTY));
const thick = computed(() => boards.find(({ value }) => value === typed.material)?.thick ?? false);

const SIDES = computed(() =>
  kind === 'carton'
    ? ([
        ['length', 'Opening, long', 'length_mm'],
        ['width', 'Opening, wide', 'width_mm'],
        ['height', 'Deep, inside', 'depth_mm'],
      ] as const)
    : ([
        ['width', 'Across the flutes', 'width_mm'],
        ['height', 'Along the flutes', 'height_mm'],
        ...(thick.value ? [['thickness', 'Thick', 'thickness_mm'] as const] : []),
      ] as const),
);

async function put(): Promise<void> {
  errors.value = {};
  busy.value = true;
  try {
    const texts = Object.fromEntries(SIDES.value.map(([key, , field]) => [field, typed[key]]));
    const { lengths_mm: sides } = await answer(
      api.POST('/api/v1/measures/lengths', { body: { texts, unit: unit.value } }),
    );
    const { name, place, material, opens, condition, markings, origin, carrier } = typed;
    const about =
      kind === 'carton' ? { board: material, opens, condition, markings, origin, carrier } : { material };
    const body = { kind, name, place, left: left.value ?? 0, ...about, ...sides } as unknown as ShelfRequest;
    const done = await shelf.put(body);
    errors.value = shelf.errors.value;
    if (!done) return;
    Object.assign(typed, EMPTY);
    left.value = 1;
    emit('done');
  } catch (error) {
    errors.value =
      error instanceof Refused ? error.fields : { away: 'the server can’t be reached: try again' };
  } finally {
    busy.value = false;
  }
}
useLeaveGuard(() => (changed.value ? `what you typed about this ${kind}` : undefined));
</script>

<template>
  <form class="panel" @submit.prevent="put">
    <h2>{{ kind === 'carton' ? 'A carton for the pile' : 'An offcut for the shelf' }}</h2>
    <div class="fields">
      <LengthField
        v-for="[key, label, field] in SIDES"
        :key="key"
        v-model="typed[key]"
        :label="label"
        :name="field"
        :error="errors[field]"
      />
      <ChoiceField
        v-model="typed.material"
        :label="kind === 'carton' ? 'Board most like its own' : 'Of what'"
        :name="kind === 'carton' ? 'board' : 'material'"
        :choices="boards"
        empty="choose"
        :error="errors['board'] ?? errors['material']"
      />
      <NumberField v-model="left" label="How many" name="left" :error="errors['left']" />
      <TextField v-model="typed.name" label="Written on it" name="name" :error="errors['name']" />
      <TextField v-model="typed.place" label="Where it stands" name="place" :error="errors['place']" />
      <template v-if="kind === 'carton'">
        <ChoiceField v-model="typed.opens" label="It opens" name="opens" :choices="OPENS" />
        <ChoiceField v-model="typed.condition" label="Condition" name="condition" :choices="CONDITIONS" />
        <ChoiceField v-model="typed.markings" label="Old marks" name="markings" :choices="MARKINGS" />
        <ChoiceField v-model="typed.origin" label="Where it comes from" name="origin" :choices="ORIGINS" />
        <TextField
          v-model="typed.carrier"
          label="Belongs to a carrier’s service"
          name="carrier"
          hint="the carrier’s name: the others refuse it"
          :error="errors['carrier']"
        />
      </template>
    </div>
    <p v-if="typed.origin === 'found'" v-say class="notice" data-test="ask-owner">
      Ask the owner before you take it: a box beside a door may still be collected, or belong to a shop. Add
      it once they agree.
    </p>
    <p v-if="errors['away']" v-say class="notice">{{ errors['away'] }}</p>
    <BButton type="submit" variant="primary" :disabled="busy"
      >Put it on the {{ kind === 'carton' ? 'pile' : 'shelf' }}</BButton
    >
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
