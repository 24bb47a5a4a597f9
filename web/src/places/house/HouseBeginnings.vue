<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect';
import { computed, ref } from 'vue';

import type { Studio } from '@/api/types';
import { usePresets } from '@/api/usePresets';
import NumberField from '@/parts/NumberField.vue';
import TickField from '@/parts/TickField.vue';
import TickList from '@/parts/TickList.vue';
import { vSay } from '@/said/say';

import type { EditedLine } from './useOdds';

/** From whom to begin: the first line that holds gives the preset that a shipment starts from. */
const { studio, errors, name } = defineProps<{
  studio: Studio;
  errors: Record<string, string>;
  name: string;
}>();
const lines = defineModel<EditedLine[]>({ required: true });

const { presets } = usePresets();
const named = (line: EditedLine) =>
  [...new Set([name, ...presets.value.map(({ rules }) => rules.name), line.start_from])].filter(Boolean);

const routes = computed(() => studio.routes.map(({ route, name: text }) => ({ value: route, text })));
const classes = computed(() => studio.classes.map(({ class: value, name: text }) => ({ value, text })));

/** As many lines as are met at first; all where one of the others is refused. */
const AT_FIRST = 4;
const all = ref(false);
const refused = computed(() => Object.keys(errors).some((path) => path.startsWith('beginnings[')));
const shown = computed(() => (all.value || refused.value ? lines.value : lines.value.slice(0, AT_FIRST)));

function add(): void {
  all.value = true;
  lines.value.push({
    routes: [],
    classes: [],
    value_over: null,
    value_up_to: null,
    irreplaceable: false,
    start_from: name,
  });
}
function move(at: number, by: number): void {
  const [line] = lines.value.splice(at, 1);
  if (line) lines.value.splice(at + by, 0, line);
}
</script>

<template>
  <details class="tables" data-test="begin">
    <summary>
      From whom to begin
      <span class="soft">{{ lines.length }} lines, the first that holds counts; else {{ name }}</span>
    </summary>
    <p class="soft">
      Distance, value and whether a piece can be made again decide how much padding. A line holds for
      everything that it leaves open.
    </p>
    <ol data-test="beginnings">
      <li v-for="(line, at) in shown" :key="at">
        <TickList v-model="line.routes" label="when it goes" :choices="routes" />
        <TickList v-model="line.classes" label="and is" :choices="classes" />
        <div class="also">
          <NumberField
            v-model="line.value_over"
            label="worth over"
            :name="`begin.${at}.value`"
            placeholder="any"
            :error="errors[`beginnings[${at}].value_over`]"
          />
          <NumberField
            v-model="line.value_up_to"
            label="worth at most"
            :name="`begin.${at}.most`"
            placeholder="any"
            :error="errors[`beginnings[${at}].value_up_to`]"
          />
          <TickField
            v-model="line.irreplaceable"
            label="can’t be replaced"
            :name="`begin.${at}.irreplaceable`"
          />
        </div>
        <div class="from">
          <label class="start">
            start from
            <BFormSelect v-model="line.start_from" :name="`begin.${at}.from`">
              <option v-for="preset in named(line)" :key="preset" :value="preset">{{ preset }}</option>
            </BFormSelect>
          </label>
          <p v-if="errors[`beginnings[${at}].start_from`]" v-say class="error">
            {{ errors[`beginnings[${at}].start_from`] }}
          </p>
          <span class="acts">
            <button v-if="at > 0" type="button" class="plain" @click="move(at, -1)">Up</button>
            <button v-if="at < lines.length - 1" type="button" class="plain" @click="move(at, 1)">
              Down
            </button>
            <button type="button" class="plain" @click="lines.splice(at, 1)">Take away</button>
          </span>
        </div>
      </li>
    </ol>
    <BButton v-if="shown.length < lines.length" size="sm" @click="all = true"
      >Show all {{ lines.length }} lines</BButton
    >
    <BButton size="sm" @click="add">Add a line</BButton>
  </details>
</template>

<style scoped lang="scss">
@use '@/styles/at';

ol {
  margin: 0 0 8px;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.5fr) minmax(0, 1fr) minmax(0, 1fr);
  gap: 4px 16px;
  align-items: start;
  padding: 8px 0;
  border-bottom: 1px solid var(--sedge);
}
.acts {
  display: flex;
  gap: 12px;
}
.start {
  font-weight: 600;
}
@include at.phone {
  li {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
