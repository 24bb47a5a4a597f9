<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect';
import { computed } from 'vue';

import type { Studio } from '@/api/types';
import { counted } from '@/words/grammar';
import { ENCLOSURES, LOOKS, PLACES_IN } from '@/words/vocabulary';
import NumberField from '@/parts/NumberField.vue';
import TextField from '@/parts/TextField.vue';
import TickField from '@/parts/TickField.vue';
import TickList from '@/parts/TickList.vue';

import type { EditedSet } from './useRules';

/** What goes in with every piece of a kind, and which looks at the bench stop the work. */
const { studio, errors } = defineProps<{ studio: Studio; errors: Record<string, string> }>();
const sets = defineModel<EditedSet[]>('sets', { required: true });
const shown = defineModel<string[]>('shown', { required: true });

const KINDS = Object.entries(ENCLOSURES).map(([value, text]) => ({ value, text }));
const PLACES = Object.entries(PLACES_IN).map(([value, text]) => ({ value, text }));
const looks = Object.entries(LOOKS).map(([value, text]) => ({ value, text }));
const classes = computed(() => studio.classes.map(({ class: value, name: text }) => ({ value, text })));
const listed = computed(() => sets.value.reduce((sum, { list }) => sum + list.length, 0));

function addSet(): void {
  sets.value.push({ name: 'New list', classes: [], with_certificate: false, gifts: false, list: [] });
}
/** A name that no other line has. */
function freeKey(): string {
  const keys = new Set(sets.value.flatMap(({ list }) => list.map(({ key }) => key)));
  let number = 1;
  while (keys.has(`house-${String(number)}`)) number += 1;
  return `house-${String(number)}`;
}
function addTo(set: EditedSet): void {
  set.list.push({
    key: freeKey(),
    kind: 'card',
    name: '',
    place: 'on_top',
    thickness_mm: 1,
    mass_g: 12,
    hard: false,
  });
}
</script>

<template>
  <details class="tables" data-test="goes-in">
    <summary>
      Enclosures
      <span class="soft">{{ counted(listed, 'thing') }} in {{ counted(sets.length, 'list') }}</span>
    </summary>
    <p class="soft">
      Every list that fits a shipment goes in. They count in size and weight. Pack asks for each before it is
      covered.
    </p>
    <section v-for="(set, at) in sets" :key="at" class="set">
      <div class="head">
        <TextField
          v-model="set.name"
          label="List"
          :name="`enclosures.${at}.name`"
          :error="errors[`enclosures[${at}].name`]"
        />
        <TickList v-model="set.classes" label="for" :choices="classes" />
        <TickField
          v-model="set.with_certificate"
          label="only with a certificate"
          :name="`enclosures.${at}.with_certificate`"
        />
        <TickField v-model="set.gifts" label="only gifts" :name="`enclosures.${at}.gifts`" />
        <button type="button" class="plain" @click="sets.splice(at, 1)">Delete the list</button>
      </div>
      <p v-if="set.list.length === 0" class="soft">Empty list.</p>
      <div v-for="(one, line) in set.list" :key="one.key" class="line">
        <BFormSelect v-model="one.kind" :name="`enclosures.${at}.${line}.kind`" aria-label="What">
          <option v-for="kind in KINDS" :key="kind.value" :value="kind.value">{{ kind.text }}</option>
        </BFormSelect>
        <TextField
          v-model="one.name"
          label="Called"
          :name="`enclosures.${at}.${line}.name`"
          :error="errors[`enclosures[${at}].list[${line}].name`]"
          bare
        />
        <BFormSelect v-model="one.place" :name="`enclosures.${at}.${line}.place`" aria-label="Where">
          <option v-for="place in PLACES" :key="place.value" :value="place.value">{{ place.text }}</option>
        </BFormSelect>
        <NumberField
          v-model="one.thickness_mm"
          label="Thick, mm"
          :name="`enclosures.${at}.${line}.thickness_mm`"
          :error="errors[`enclosures[${at}].list[${line}].thickness_mm`]"
        />
        <NumberField
          v-model="one.mass_g"
          label="Weighs, g"
          :name="`enclosures.${at}.${line}.mass_g`"
          :error="errors[`enclosures[${at}].list[${line}].mass_g`]"
        />
        <TickField v-model="one.hard" label="hard" :name="`enclosures.${at}.${line}.hard`" />
        <button type="button" class="plain" @click="set.list.splice(line, 1)">Take away</button>
        <p v-if="errors[`enclosures[${at}].list[${line}].place`]" class="error">
          {{ errors[`enclosures[${at}].list[${line}].place`] }}
        </p>
      </div>
      <BButton size="sm" @click="addTo(set)">Add to this list</BButton>
    </section>
    <BButton size="sm" @click="addSet">Another list</BButton>
  </details>
  <details class="tables" data-test="looks">
    <summary>
      Looks at the bench
      <span class="soft">{{
        shown.length === 0 ? 'every one stops the work' : `${counted(shown.length, 'look')} only shown`
      }}</span>
    </summary>
    <p class="soft">
      A look stops the work until it is answered. For pieces you pack every day, some can be shown only.
      Enclosures are always asked for.
    </p>
    <TickList v-model="shown" label="only shown, never asked" :choices="looks" none="none of them" />
  </details>
</template>

<style scoped>
.set {
  padding: 8px 0;
  border-bottom: 1px solid var(--sedge);
}
.head,
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: end;
}
.line {
  padding: 4px 0;
}
section + .btn {
  margin: 8px 0;
}
.line :deep(input[inputmode]) {
  width: 96px;
}
.form-select {
  width: auto;
  min-height: 44px;
}
.error {
  flex-basis: 100%;
  margin: 0;
}
</style>
