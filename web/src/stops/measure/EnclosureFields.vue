<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, nextTick, ref, watch } from 'vue';

import type { Enclosed } from '@/api/types';
import { ENCLOSURES, PLACES_IN } from '@/words/vocabulary';
import ChoiceField from '@/parts/ChoiceField.vue';
import DraftField from '@/parts/DraftField.vue';
import LengthField from '@/parts/LengthField.vue';
import NumberField from '@/parts/NumberField.vue';
import TextField from '@/parts/TextField.vue';
import TickField from '@/parts/TickField.vue';
import { emptyEnclosure } from '@/shipment/draft';
import type { DraftEnclosure } from '@/shipment/draft';
import { useShipment } from '@/shipment/useShipment';
import { useUnits } from '@/units/useUnits';

import CertificateFacts from './CertificateFacts.vue';
import { enclosedIn } from './enclosed';

/** What goes in besides the piece: by the house's lists, and what this shipment lists itself. */
const { draft, errors, plan, save } = useShipment();
const units = useUnits();

const KINDS = Object.entries(ENCLOSURES).map(([value, text]) => ({ value, text }));
const PLACES = Object.entries(PLACES_IN).map(([value, text]) => ({ value, text }));

interface Row {
  key: string;
  /** As the plan has it; nothing before there is a plan, and for what is left out. */
  known?: Enclosed;
  typed?: DraftEnclosure;
}
const planned = computed(() => enclosedIn(plan.value));
const rows = computed((): Row[] => {
  const keys = new Set([...planned.value.map(({ key }) => key), ...Object.keys(draft.enclosures)]);
  return [...keys].map((key) => ({
    key,
    known: planned.value.find((one) => one.key === key),
    typed: draft.enclosures[key],
  }));
});
/** Which one's fields are open. */
const open = ref<string>();
const error = (key: string, field: string) => errors.value[`enclosures.${key}.${field}`];
const isRefused = (key: string) =>
  Object.keys(errors.value).some((path) => path.startsWith(`enclosures.${key}.`));

function called({ key, known, typed }: Row): string {
  const kind = typed?.kind || known?.kind;
  const name = typed?.name || known?.name || (kind && ENCLOSURES[kind as keyof typeof ENCLOSURES]);
  return name || key.replaceAll('-', ' ');
}
function says({ known, typed }: Row): string {
  if (typed?.left_out) return 'left out of this one';
  if (!known) return 'not in the plan yet';
  const thick = `${units.length(known.thickness_mm)} thick`;
  const from = known.set ? ` · by the house: ${known.set}` : '';
  return `${PLACES_IN[known.place]} · ${thick} · ${known.mass_g.toFixed(0)} g${from}`;
}
function add(kind: string): void {
  let number = 1;
  while (draft.enclosures[`own-${String(number)}`]) number += 1;
  const key = `own-${String(number)}`;
  draft.enclosures[key] = emptyEnclosure(kind);
  open.value = key;
  void save();
}
function change(key: string): void {
  draft.enclosures[key] ??= emptyEnclosure();
  open.value = open.value === key ? undefined : key;
}
function drop({ key, known }: Row): void {
  if (known?.set) draft.enclosures[key] = { ...emptyEnclosure(), left_out: true };
  else Reflect.deleteProperty(draft.enclosures, key);
  open.value = undefined;
  void save();
}
function putBack(key: string): void {
  Reflect.deleteProperty(draft.enclosures, key);
  void save();
}
const adding = ref('');
watch(adding, async (kind) => {
  if (!kind) return;
  add(kind);
  // The next one is chosen anew.
  await nextTick();
  adding.value = '';
});
</script>

<template>
  <fieldset class="enclosures">
    <legend>Enclosures</legend>
    <p v-if="rows.length === 0" class="soft">
      Nothing yet. Papers and gifts count in size and weight. Pack asks for each before it is covered.
    </p>
    <ul>
      <li v-for="row in rows" :key="row.key" :class="{ out: row.typed?.left_out }">
        <div class="line">
          <span>
            <strong>{{ called(row) }}</strong>
            <span class="soft figure">{{ says(row) }}</span>
          </span>
          <span class="buttons no-print">
            <BButton
              v-if="row.typed?.left_out"
              size="sm"
              variant="outline-secondary"
              @click="putBack(row.key)"
            >
              Put it back
            </BButton>
            <template v-else>
              <BButton
                size="sm"
                variant="outline-secondary"
                :aria-expanded="open === row.key"
                @click="change(row.key)"
              >
                {{ open === row.key ? 'Fold away' : 'Change' }}
              </BButton>
              <BButton size="sm" variant="outline-secondary" @click="drop(row)">Leave out</BButton>
            </template>
          </span>
        </div>
        <div
          v-if="row.typed && !row.typed.left_out && (open === row.key || isRefused(row.key))"
          class="fields"
        >
          <TextField
            v-model="row.typed.name"
            label="Called"
            :name="`enclosures.${row.key}.name`"
            :error="error(row.key, 'name')"
          />
          <ChoiceField
            v-model="row.typed.place"
            label="Where"
            :name="`enclosures.${row.key}.place`"
            :choices="PLACES"
            :empty="row.known ? PLACES_IN[row.known.place] : 'where such a thing goes'"
            :error="error(row.key, 'place')"
          />
          <LengthField
            v-model="row.typed.thickness"
            label="Thick"
            :name="`enclosures.${row.key}.thickness`"
            :placeholder="row.known ? units.length(row.known.thickness_mm) : undefined"
            :error="error(row.key, 'thickness')"
          />
          <NumberField
            v-model="row.typed.grams"
            label="Weighs, g"
            :name="`enclosures.${row.key}.grams`"
            :placeholder="row.known?.mass_g.toFixed(0)"
            :error="error(row.key, 'grams')"
          />
          <TickField
            :model-value="row.typed.hard ?? row.known?.hard ?? false"
            label="It is hard, and dents what lies on it"
            :name="`enclosures.${row.key}.hard`"
            @update:model-value="(hard: boolean) => row.typed && (row.typed.hard = hard)"
          />
        </div>
      </li>
    </ul>
    <div class="add no-print">
      <ChoiceField
        v-model="adding"
        label="Add something"
        name="enclosure-kind"
        :choices="KINDS"
        empty="Choose what"
      />
      <DraftField path="piece.certificate" />
    </div>
    <CertificateFacts />
  </fieldset>
</template>

<style scoped>
legend {
  font-family: var(--heading);
  font-size: var(--type-strong);
  font-weight: 600;
}
ul {
  margin: 0 0 8px;
  padding: 0;
  list-style: none;
}
li {
  padding: 4px 0;
  border-bottom: 1px solid var(--sedge);
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
  justify-content: space-between;
}
.line strong {
  display: inline-block;
}
.line strong::first-letter {
  text-transform: uppercase;
}
.line .soft {
  display: block;
}
.out strong {
  text-decoration: line-through;
}
.buttons {
  display: flex;
  gap: 8px;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(170px, 100%), 1fr));
  gap: 0 12px;
  align-items: end;
  margin-top: 4px;
}
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 0 24px;
  align-items: center;
}
</style>
