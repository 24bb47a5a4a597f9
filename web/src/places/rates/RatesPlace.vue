<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, nextTick, useTemplateRef } from 'vue';

import type { ShapedSheet } from '@/api/types';
import EmptyPlace from '@/parts/EmptyPlace.vue';
import FileText from '@/parts/FileText.vue';
import { vSay } from '@/said/say';

import AccountPanel from './AccountPanel.vue';
import CarrierService from './CarrierService.vue';
import CostsMore from './CostsMore.vue';
import ExchangeRates from './ExchangeRates.vue';
import ServiceForm from './ServiceForm.vue';
import ShapeCards from './ShapeCards.vue';
import SheetHead from './SheetHead.vue';
import TariffActs from './TariffActs.vue';
import TariffSaid from './TariffSaid.vue';
import TryParcel from './TryParcel.vue';
import ZonesForm from './ZonesForm.vue';
import { useTariff } from './useTariff';
import { tellWrong } from './wrong';
import { structuredCopy } from './zones';

/** The carriers' price lists: begun, typed, pasted, doubled, tried on a parcel, and in and out as text. */
const { id } = defineProps<{ id?: string }>();
const open = useTariff(() => id);
const { rates, listed, basis, text, csv, unread, choosing } = open;
tellWrong(rates.wrong);

const zones = computed(() => basis.value?.sheet.zones.map(({ name }) => name) ?? []);
const forAll = computed(() => basis.value?.sheet.rules.map(({ name }) => name) ?? []);
const isOpen = (tariff: string) => !choosing.value && tariff === basis.value?.id;
const page = useTemplateRef<HTMLElement>('page');
/** Whoever chose a shape types the first price at once. */
async function begun(shaped: ShapedSheet): Promise<void> {
  open.beginIn(shaped);
  await nextTick();
  page.value?.querySelector<HTMLInputElement>('[name$="/prices/0"]')?.focus();
}
function newZones(names: readonly string[]): void {
  for (const name of names)
    if (!zones.value.includes(name)) basis.value?.sheet.zones.push({ name, countries: [], postcodes: [] });
}
function addService(): void {
  const services = basis.value?.sheet.services;
  const last = services?.at(-1);
  if (!services || !last) return;
  const next = structuredCopy(last);
  for (const column of next.prices.zones) {
    column.prices.fill('');
    column.further = '';
  }
  services.push({ ...next, id: '', name: `Service ${String(services.length + 1)}`, formats: [] });
}
</script>

<template>
  <div ref="page" class="page">
    <div class="top">
      <h1>Carriers</h1>
      <BButton v-if="rates.tariffs.value" class="no-print" data-test="new-carrier" @click="open.fresh"
        >New carrier</BButton
      >
    </div>
    <nav class="carriers no-print" aria-label="Carriers">
      <a
        v-for="one in listed"
        :key="one.tariff.id"
        :href="`/carriers/${one.tariff.id}`"
        :class="{ here: isOpen(one.tariff.id) }"
        :aria-current="isOpen(one.tariff.id) ? 'page' : undefined"
        @click.prevent="open.open(one.tariff.id)"
        >{{ one.tariff.carrier }}</a
      >
      <span v-if="choosing" class="here">New carrier</span>
      <span v-else-if="basis && basis.version === undefined" class="here">{{
        basis.sheet.carrier || 'New carrier'
      }}</span>
    </nav>
    <p v-if="rates.trouble.value" v-say class="trouble">{{ rates.trouble.value }}</p>
    <p v-if="!rates.tariffs.value" class="soft">Opening the rates</p>
    <ShapeCards v-else-if="choosing" @begin="begun" />
    <EmptyPlace
      v-else-if="!basis"
      drawing="carriers"
      says="No price lists yet. Have a carrier’s price sheet at hand: weights down, zones across."
    >
      <BButton variant="primary" @click="open.fresh">New carrier</BButton>
    </EmptyPlace>
    <div v-else class="split">
      <section :key="basis.id ?? ''" :aria-label="basis.sheet.carrier || 'New carrier'">
        <TariffActs :open="open" />
        <TariffSaid :open="open" />
        <template v-if="csv !== undefined">
          <FileText
            v-model="csv"
            label="Prices"
            name="csv"
            hint="As the table that is given out; what it does not name stays."
          />
          <BButton :disabled="!csv" @click="open.takeTable(true)">Look it over</BButton>
          <BButton :disabled="!csv" variant="primary" @click="open.takeTable(false)"
            >Take these prices</BButton
          >
        </template>
        <template v-if="text !== undefined">
          <FileText
            v-model="text"
            label="The whole tariff, as JSON"
            name="tariff"
            accept=".json,application/json"
            hint="Its fields are described at /api/schemas/tariff.json."
          />
          <p v-if="unread" class="error">{{ unread }}</p>
        </template>
        <template v-else>
          <p v-if="basis.example" class="soft">
            Grey prices are invented: type yours over them. Rows without a price are left out.
          </p>
          <SheetHead v-model="basis.sheet" :fresh="basis.version === undefined" />
          <ZonesForm v-model="basis.sheet" :fresh="basis.version === undefined" />
          <ServiceForm
            v-for="(_, at) in basis.sheet.services"
            :key="at"
            v-model="basis.sheet.services[at]!"
            :at="at"
            :zones="zones"
            :before="forAll"
            :example="basis.example?.services[at]"
            @new-zones="newZones"
            @drop="basis.sheet.services.splice(at, 1)"
          />
          <BButton size="sm" @click="addService">+ Service</BButton>
          <details class="all" :open="basis.sheet.rules.length > 0">
            <summary><h2>Surcharges for every service</h2></summary>
            <CostsMore v-model="basis.sheet.rules" place="rules" :zones="zones" :before="[]" />
          </details>
        </template>
      </section>
      <div class="beside">
        <TryParcel :sheet="basis.sheet" :placed="text !== undefined" />
        <AccountPanel v-if="basis.id" :key="basis.id" :tariff="basis.id" />
        <CarrierService v-if="basis.id" :key="`service of ${basis.id}`" :tariff="basis.id" />
        <ExchangeRates />
      </div>
    </div>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.page {
  max-width: 1280px;
}
.top {
  display: flex;
  gap: 16px;
  align-items: center;
}
h1 {
  margin: 4px 0;
  font-size: var(--type-title);
}
h2 {
  margin: 12px 0 4px;
  font-size: var(--type-lead);
}
.all summary {
  min-height: 44px;
  cursor: pointer;
}
.all h2 {
  display: inline;
}
.carriers {
  display: flex;
  flex-wrap: wrap;
  gap: 0 4px;
  margin-bottom: 12px;
  border-bottom: 2px solid var(--peat);
}
.carriers :is(a, span) {
  min-height: 44px;
  padding: 9px 10px 6px;
  border-bottom: 4px solid transparent;
  color: var(--peat);
  text-decoration: none;
}
.carriers .here {
  border-color: var(--heather);
  font-weight: 600;
}
.split {
  display: grid;
  grid-template-columns: minmax(0, 1.4fr) minmax(340px, 1fr);
  gap: 24px;
  align-items: start;
}
.beside {
  position: sticky;
  top: 8px;
  max-height: calc(100vh - 16px);
  overflow: auto;
}
.trouble {
  margin: 0 0 12px;
  padding: 8px 12px;
  border-left: 4px solid var(--rowan);
  background: var(--paper);
}
.error {
  color: var(--rowan);
}
@include at.tablet {
  .beside {
    position: static;
    max-height: none;
  }
  .split {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
