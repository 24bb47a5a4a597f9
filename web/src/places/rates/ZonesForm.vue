<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { ref } from 'vue';

import type { TariffSheet, ZoneSheet } from '@/api/types';
import { useCountries } from '@/countries/useCountries';
import TextField from '@/parts/TextField.vue';

import OutButton from './OutButton.vue';
import { useWrong } from './wrong';
import { renamed, without } from './zones';

/** Where the carrier goes: zones of countries, or of some of their postcodes; the first that fits is the one. */
const { fresh } = defineProps<{
  /** It is not kept yet. */
  fresh: boolean;
}>();
const sheet = defineModel<TariffSheet>({ required: true });
// Once open it stays as whoever works at it leaves it.
const open = ref(fresh);
const wrong = useWrong();
const { listed, rest, nameOf } = useCountries();

function rename(at: number, name: string): void {
  sheet.value = renamed(sheet.value, at, name);
}
function add(): void {
  const name = `Zone ${String(sheet.value.zones.length + 1)}`;
  sheet.value.zones.push({ name, countries: [], postcodes: [] });
  for (const service of sheet.value.services)
    service.prices.zones.push({ zone: name, prices: service.prices.weights.map(() => ''), further: '' });
}
function addCountry(zone: ZoneSheet, code: string): void {
  if (code && !zone.countries.includes(code)) zone.countries.push(code);
}
function sooner(at: number): void {
  const [zone] = sheet.value.zones.splice(at, 1);
  if (zone) sheet.value.zones.splice(at - 1, 0, zone);
}
function other(zone: ZoneSheet, line: number, kind: string): void {
  const was = zone.postcodes[line];
  const from = was?.kind === 'from_to' ? was.from : (was?.with ?? '');
  zone.postcodes[line] = kind === 'from_to' ? { kind, from, to: '' } : { kind: 'begins_with', with: from };
}
</script>

<template>
  <details
    class="all"
    :open="open || Boolean(wrong('zones'))"
    @toggle="open = ($event.target as HTMLDetailsElement).open"
  >
    <summary>
      <h2>Zones</h2>
      <span class="soft">{{ sheet.zones.map(({ name }) => name).join(', ') }}</span>
    </summary>
    <ol class="zones">
      <li v-for="(zone, at) in sheet.zones" :key="at" class="zone" :aria-label="zone.name">
        <div class="line">
          <TextField
            :model-value="zone.name"
            class="name"
            bare
            :label="`Zone ${at + 1}`"
            :name="`zones/${at}/name`"
            :error="wrong(`zones/${at}/name`)"
            @update:model-value="rename(at, $event)"
          />
          <span v-for="(code, index) in zone.countries" :key="code" class="country">
            {{ nameOf(code) }}
            <OutButton
              :label="`${zone.name}: not ${nameOf(code)}`"
              @press="zone.countries.splice(index, 1)"
            />
          </span>
          <select
            class="form-select add"
            :name="`zones/${at}/add`"
            :aria-label="`${zone.name}: another country`"
            @change="
              addCountry(zone, ($event.target as HTMLSelectElement).value);
              ($event.target as HTMLSelectElement).value = '';
            "
          >
            <option value="">+ Country</option>
            <option v-for="country in listed" :key="country.code" :value="country.code">
              {{ country.name }}
            </option>
            <option v-for="country in rest" :key="country.code" :value="country.code">
              {{ country.name }}
            </option>
          </select>
          <BButton size="sm" variant="link" @click="zone.postcodes.push({ kind: 'begins_with', with: '' })"
            >+ Postcodes</BButton
          >
          <span class="acts">
            <BButton
              size="sm"
              variant="link"
              :disabled="at === 0"
              :aria-label="`Look at ${zone.name} sooner`"
              @click="sooner(at)"
              >↑</BButton
            >
            <OutButton :label="`Take out ${zone.name}`" @press="sheet = without(sheet, at)" />
          </span>
        </div>
        <p v-if="wrong(`zones/${at}/countries`)" class="error">{{ wrong(`zones/${at}/countries`) }}</p>
        <div v-for="(codes, line) in zone.postcodes" :key="line" class="line codes">
          <select
            class="form-select kind"
            :name="`zones/${at}/postcodes/${line}/kind`"
            :aria-label="`${zone.name}: which postcodes`"
            :value="codes.kind"
            @change="other(zone, line, ($event.target as HTMLSelectElement).value)"
          >
            <option value="begins_with">postcode begins with</option>
            <option value="from_to">postcode from … to</option>
          </select>
          <TextField
            v-if="codes.kind === 'begins_with'"
            v-model="codes.with"
            class="code"
            bare
            label="Beginning"
            placeholder="NQ, or N*"
            :name="`zones/${at}/postcodes/${line}/with`"
            :error="wrong(`zones/${at}/postcodes/${line}`)"
          />
          <template v-else>
            <TextField
              v-model="codes.from"
              class="code"
              bare
              label="First postcode"
              :name="`zones/${at}/postcodes/${line}/from`"
              :error="wrong(`zones/${at}/postcodes/${line}`)"
            />
            to
            <TextField
              v-model="codes.to"
              class="code"
              bare
              label="Last postcode"
              :name="`zones/${at}/postcodes/${line}/to`"
            />
          </template>
          <OutButton
            :label="`${zone.name}: take out these postcodes`"
            @press="zone.postcodes.splice(line, 1)"
          />
        </div>
      </li>
    </ol>
    <p v-if="sheet.zones.length === 0 && wrong('zones')" class="error">{{ wrong('zones') }}</p>
    <BButton size="sm" @click="add">+ Zone</BButton>
  </details>
</template>

<style scoped>
summary {
  min-height: 44px;
  padding: 8px 0;
  cursor: pointer;
}
h2 {
  display: inline;
  margin-right: 8px;
  font-size: var(--type-lead);
}
.zones {
  margin: 0 0 8px;
  padding: 0;
  list-style: none;
}
.zone {
  padding: 6px 0;
  border-top: 1px solid var(--sedge);
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
}
.codes {
  padding: 4px 0 0 20px;
}
.name {
  width: 160px;
}
.country {
  white-space: nowrap;
}
.add,
.kind {
  width: auto;
  max-width: 210px;
}
.code {
  width: 110px;
}
.acts {
  margin-left: auto;
}
.error {
  margin: 0;
  color: var(--rowan);
  font-weight: 600;
}
</style>
