<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';

import type { ConditionSheet, WhenSheet } from '@/api/types';
import TextField from '@/parts/TextField.vue';
import TickList from '@/parts/TickList.vue';
import { condition as words } from '@/stops/price/rules';
import { useUnits } from '@/units/useUnits';

import { chosen, CONDITIONS, CONTENTS, GAUGES, SHAPES } from './choices';
import { useWrong } from './wrong';

/** When something applies: one condition, or a few that are joined. */
const { place, zones } = defineProps<{ place: string; zones: readonly string[] }>();
const when = defineModel<WhenSheet>({ required: true });
const units = useUnits();
const wrong = useWrong();

function change(at: number, value: string): void {
  const made = CONDITIONS.find((one) => one.value === value)?.made();
  const before = when.value.of[at];
  if (!made || !before) return;
  // Another measure of the same kind keeps its number.
  if (made.kind === 'over' && before.kind === 'over') made.over = before.over;
  when.value.of[at] = made;
}
const add = () => when.value.of.push({ kind: 'over', gauge: 'longest', over: '' });
const like = (one: ConditionSheet) =>
  one.kind === 'over' ? GAUGES.find(({ value }) => value === one.gauge)?.like : undefined;
const label = (at: number) => `Condition ${String(at + 1)}`;
</script>

<template>
  <div class="when">
    <div v-for="(one, at) in when.of" :key="at" class="one">
      <select
        v-if="at === 1"
        v-model="when.joined"
        class="form-select joined"
        :name="`${place}/joined`"
        aria-label="How the conditions are joined"
      >
        <option value="all">and</option>
        <option value="any">or</option>
      </select>
      <span v-else-if="at > 1" class="joined soft">{{ when.joined === 'all' ? 'and' : 'or' }}</span>
      <template v-if="one.kind === 'kept'">
        <span class="figure">{{ words(one.when, units) }}</span>
        <span class="soft">kept as it is</span>
      </template>
      <template v-else>
        <select
          class="form-select kind"
          :name="`${place}/of/${at}/kind`"
          :aria-label="label(at)"
          :value="chosen(one)"
          @change="change(at, ($event.target as HTMLSelectElement).value)"
        >
          <option v-for="choice in CONDITIONS" :key="choice.value" :value="choice.value">
            {{ choice.text }}
          </option>
        </select>
        <TextField
          v-if="one.kind === 'over' || one.kind === 'value_over'"
          v-model="one.over"
          class="value"
          bare
          :label="`${label(at)}: over`"
          :name="`${place}/of/${at}/over`"
          :placeholder="like(one)"
          :error="at === 0 ? wrong(place) : undefined"
        />
        <TextField
          v-else-if="one.kind === 'postcode'"
          v-model="one.prefixes"
          class="value"
          bare
          :label="`${label(at)}: beginnings of postcodes, parted by commas`"
          :name="`${place}/of/${at}/prefixes`"
          placeholder="NQ, SH4"
          :error="at === 0 ? wrong(place) : undefined"
        />
        <TickList
          v-else-if="one.kind === 'zone'"
          v-model="one.is"
          label=""
          none="which?"
          :choices="zones.map((zone) => ({ value: zone, text: zone }))"
        />
        <TickList
          v-else-if="one.kind === 'shape'"
          v-model="one.is"
          label=""
          none="which?"
          :choices="SHAPES"
        />
        <TickList
          v-else-if="one.kind === 'contents' || one.kind === 'without'"
          v-model="one.any_of"
          label=""
          none="which?"
          :choices="CONTENTS"
        />
      </template>
      <BButton
        v-if="when.of.length > 1"
        size="sm"
        variant="link"
        :aria-label="`Take out condition ${at + 1}`"
        @click="when.of.splice(at, 1)"
        >−</BButton
      >
    </div>
    <BButton size="sm" variant="link" @click="add">+ and, or</BButton>
    <p
      v-if="wrong(place) && !['over', 'postcode', 'value_over'].includes(when.of[0]?.kind ?? '')"
      class="error"
    >
      {{ wrong(place) }}
    </p>
  </div>
</template>

<style scoped>
.when,
.one {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
}
.kind {
  width: auto;
  max-width: 220px;
}
.joined {
  width: auto;
}
.value {
  width: 130px;
}
.error {
  margin: 0;
  color: var(--rowan);
  font-weight: 600;
}
</style>
