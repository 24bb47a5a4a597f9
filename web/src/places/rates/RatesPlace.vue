<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';

import EmptyPlace from '@/parts/EmptyPlace.vue';
import FileText from '@/parts/FileText.vue';
import { vSay } from '@/said/say';

import AccountPanel from './AccountPanel.vue';
import ExchangeRates from './ExchangeRates.vue';
import ServiceCard from './ServiceCard.vue';
import TariffActs from './TariffActs.vue';
import TariffHead from './TariffHead.vue';
import TariffSaid from './TariffSaid.vue';
import TryParcel from './TryParcel.vue';
import { useTariff } from './useTariff';

/** The carriers' tariffs: read, changed, doubled, tried on a parcel, and in and out as text. */
const { id } = defineProps<{ id?: string }>();
const open = useTariff(() => id);
const { rates, listed, basis, text, csv, unread } = open;
</script>

<template>
  <div class="page">
    <h1>Carriers</h1>
    <nav class="carriers no-print" aria-label="Carriers">
      <a
        v-for="one in listed"
        :key="one.tariff.id"
        :href="`/carriers/${one.tariff.id}`"
        :class="{ here: basis?.version !== undefined && one.tariff.id === basis.tariff.id }"
        :aria-current="one.tariff.id === basis?.tariff.id ? 'page' : undefined"
        @click.prevent="open.open(one.tariff.id)"
        >{{ one.tariff.carrier }}</a
      >
    </nav>
    <p v-if="rates.trouble.value" v-say class="trouble">{{ rates.trouble.value }}</p>
    <p v-if="!rates.tariffs.value" class="soft">Opening the rates</p>
    <EmptyPlace
      v-else-if="!basis"
      drawing="carriers"
      says="No carrier’s price list is kept here. What a carrier quotes for one parcel can be written down at its Price."
    />
    <div v-else class="split">
      <section :aria-label="basis.tariff.carrier">
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
          <TariffHead v-model="basis.tariff" :version="basis.version" />
          <ServiceCard
            v-for="(service, at) in basis.tariff.services"
            :key="service.id"
            v-model="basis.tariff.services[at]!"
            :at="at"
            :wrong="rates.wrong.value"
          />
        </template>
      </section>
      <div>
        <TryParcel :tariff="basis.tariff" :placed="text !== undefined" />
        <AccountPanel :key="basis.tariff.id" :tariff="basis.tariff.id" />
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
h1 {
  margin: 4px 0;
  font-size: var(--type-title);
}
.carriers {
  display: flex;
  flex-wrap: wrap;
  gap: 0 4px;
  margin-bottom: 12px;
  border-bottom: 2px solid var(--peat);
}
.carriers a {
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
  .split {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
