<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';

import type { RuleSheet, WhatSheet } from '@/api/types';
import TextField from '@/parts/TextField.vue';
import TickList from '@/parts/TickList.vue';

import { EFFECTS, GAUGES } from './choices';
import WhenForm from './WhenForm.vue';
import OutButton from './OutButton.vue';
import { useWrong } from './wrong';

/** What costs more, line by line, each made of choices; the order counts. */
const { place, zones, before } = defineProps<{
  place: string;
  zones: readonly string[];
  /** The names of lines that stand before these. */
  before: readonly string[];
}>();
const rules = defineModel<RuleSheet[]>({ required: true });
const wrong = useWrong();

const above = (at: number) =>
  [...before, ...rules.value.slice(0, at).map(({ name }) => name)].filter(Boolean);
const named = (names: readonly string[]) => names.map((name) => ({ value: name, text: name }));
const shares = (at: number) => [
  { value: 'base', text: 'the base price' },
  { value: 'surcharge', text: 'all that costs more before it' },
  ...named(above(at)),
];
function add(): void {
  rules.value.push({
    name: '',
    when: { joined: 'all', of: [{ kind: 'over', gauge: 'longest', over: '' }] },
    what: { kind: 'sum', price: '' },
    replaces: [],
  });
}
function change(rule: RuleSheet, kind: string): void {
  const made = EFFECTS.find(({ value }) => value === kind)?.made();
  if (made) rule.what = made;
}
function move(at: number, by: number): void {
  const [rule] = rules.value.splice(at, 1);
  if (rule) rules.value.splice(at + by, 0, rule);
}
const steps = (what: WhatSheet) => (what.kind === 'steps' ? what.steps : []);
const called = (rule: RuleSheet, at: number) => rule.name || `line ${String(at + 1)}`;
</script>

<template>
  <ol v-if="rules.length > 0" class="rules">
    <li v-for="(rule, at) in rules" :key="at" class="rule" :aria-label="called(rule, at)">
      <div class="line">
        <TextField
          v-model="rule.name"
          class="name"
          bare
          label="Carrier’s name for it"
          placeholder="Name, as Long parcel"
          :name="`${place}/${at}/name`"
          :error="wrong(`${place}/${at}/name`)"
        />
        <span class="acts">
          <BButton
            size="sm"
            variant="link"
            :disabled="at === 0"
            :aria-label="`Move ${called(rule, at)} up`"
            @click="move(at, -1)"
            >↑</BButton
          >
          <BButton
            size="sm"
            variant="link"
            :disabled="at === rules.length - 1"
            :aria-label="`Move ${called(rule, at)} down`"
            @click="move(at, 1)"
            >↓</BButton
          >
          <OutButton :label="`Take out ${called(rule, at)}`" @press="rules.splice(at, 1)" />
        </span>
      </div>
      <WhenForm v-model="rule.when" :place="`${place}/${at}/when`" :zones="zones" />
      <div class="line">
        <span class="soft arrow" aria-hidden="true">→</span>
        <select
          class="form-select kind"
          :name="`${place}/${at}/what/kind`"
          aria-label="Effect"
          :value="rule.what.kind"
          @change="change(rule, ($event.target as HTMLSelectElement).value)"
        >
          <option v-for="effect in EFFECTS" :key="effect.value" :value="effect.value">
            {{ effect.text }}
          </option>
        </select>
        <template v-if="rule.what.kind === 'sum' || rule.what.kind === 'per_kg'">
          <TextField
            v-model="rule.what.price"
            class="value"
            bare
            label="How much"
            :name="`${place}/${at}/what/price`"
            :error="wrong(`${place}/${at}/what/price`)"
          />
          <select
            v-if="rule.what.kind === 'per_kg'"
            v-model="rule.what.of"
            class="form-select kind"
            aria-label="Weight basis"
            :name="`${place}/${at}/what/of`"
          >
            <option value="billable">as billed</option>
            <option value="actual">as weighed</option>
          </select>
        </template>
        <template v-else-if="rule.what.kind === 'percent'">
          <TextField
            v-model="rule.what.percent"
            class="value"
            bare
            label="Per cent"
            :name="`${place}/${at}/what/percent`"
            :error="wrong(`${place}/${at}/what/percent`)"
          />
          <TickList v-model="rule.what.of" label="of" none="which lines?" :choices="shares(at)" />
          <span v-if="wrong(`${place}/${at}/what/of`)" class="error">{{
            wrong(`${place}/${at}/what/of`)
          }}</span>
        </template>
        <TextField
          v-else-if="rule.what.kind === 'minimum'"
          v-model="rule.what.billable"
          class="value"
          bare
          label="At least"
          placeholder="10 kg"
          :name="`${place}/${at}/what/billable`"
          :error="wrong(`${place}/${at}/what/billable`)"
        />
        <select
          v-else
          v-model="rule.what.by"
          class="form-select kind"
          aria-label="By which measure"
          :name="`${place}/${at}/what/by`"
        >
          <option v-for="gauge in GAUGES" :key="gauge.value" :value="gauge.value">{{ gauge.text }}</option>
        </select>
        <details v-if="above(at).length > 0" class="replaces" :open="rule.replaces.length > 0">
          <summary>in place of</summary>
          <TickList
            v-model="rule.replaces"
            label=""
            none="none: it adds to all"
            :choices="named(above(at))"
          />
        </details>
        <span v-if="wrong(`${place}/${at}/replaces`)" class="error">{{
          wrong(`${place}/${at}/replaces`)
        }}</span>
      </div>
      <div v-for="(step, index) in steps(rule.what)" :key="index" class="line step">
        <TextField
          v-model="step.over"
          class="value"
          bare
          :label="`Step ${index + 1}: over`"
          placeholder="over"
          :name="`${place}/${at}/what/steps/${index}/over`"
          :error="wrong(`${place}/${at}/what/steps/${index}/over`)"
        />
        add
        <TextField
          v-model="step.price"
          class="value"
          bare
          :label="`Step ${index + 1}: price`"
          placeholder="price"
          :name="`${place}/${at}/what/steps/${index}/price`"
          :error="wrong(`${place}/${at}/what/steps/${index}/price`)"
        />
        <OutButton :label="`Take out step ${index + 1}`" @press="steps(rule.what).splice(index, 1)" />
      </div>
      <BButton
        v-if="rule.what.kind === 'steps'"
        size="sm"
        variant="link"
        @click="steps(rule.what).push({ over: '', price: '' })"
        >+ step</BButton
      >
    </li>
  </ol>
  <BButton size="sm" @click="add">+ What costs more</BButton>
</template>

<style scoped>
.rules {
  margin: 0 0 8px;
  padding: 0;
  list-style: none;
}
.rule {
  padding: 8px 0;
  border-top: 1px solid var(--sedge);
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
  margin: 2px 0;
}
.name {
  flex: 1 1 180px;
  max-width: 320px;
}
.acts {
  margin-left: auto;
  white-space: nowrap;
}
.acts :deep(.btn) {
  text-decoration: none;
}
.value {
  width: 110px;
}
.kind {
  width: auto;
  max-width: 220px;
}
.step {
  padding-left: 28px;
}
.error {
  color: var(--rowan);
  font-weight: 600;
}
summary {
  min-height: 44px;
  padding: 10px 0;
  cursor: pointer;
}
</style>
