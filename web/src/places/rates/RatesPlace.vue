<script setup lang="ts">
import PlusIcon from '~icons/tabler/copy';

import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, watch } from 'vue';
import { onBeforeRouteLeave, useRouter } from 'vue-router';

import type { Tariff, TariffKept } from '@/api/types';
import DecimalInput from '@/parts/DecimalInput.vue';
import FileText from '@/parts/FileText.vue';
import { condition, effect } from '@/stops/price/rules';
import { dayAndYear } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import ExchangeRates from './ExchangeRates.vue';
import ServiceCard from './ServiceCard.vue';
import AccountPanel from './AccountPanel.vue';
import TryParcel from './TryParcel.vue';
import { useRates } from './useRates';
import type { Basis } from './useRates';

/** The carriers' tariffs: read, changed, doubled, tried on a parcel, and in and out as text. */
const { id } = defineProps<{ id?: string }>();
const rates = useRates();
const router = useRouter();
const units = useUnits();

const listed = computed(() => rates.tariffs.value ?? []);
const kept = computed(() => listed.value.find(({ tariff }) => tariff.id === id) ?? listed.value[0]);
const basis = ref<Basis>();
/** The whole as text, while it is looked at as that. */
const text = ref<string>();
const csv = ref<string>();
const unread = ref('');
const told = ref<TariffKept>();

const copy = (tariff: Tariff): Tariff => JSON.parse(JSON.stringify(tariff)) as Tariff;
function take(): void {
  const now = kept.value;
  basis.value = now && { version: now.version, tariff: copy(now.tariff) };
  text.value = undefined;
  csv.value = undefined;
  told.value = undefined;
  rates.forget();
}
const changed = computed(() => {
  if (!basis.value) return false;
  if (basis.value.version === undefined) return true;
  const was = listed.value.find(({ tariff }) => tariff.id === basis.value?.tariff.id);
  return JSON.stringify(was?.tariff) !== JSON.stringify(basis.value.tariff);
});
// What somebody changes is not taken from under their hands by a fresh look at the rates.
watch([() => kept.value?.tariff.id, () => kept.value?.version], () => {
  if (!changed.value || basis.value?.version !== undefined) take();
});
watch(kept, (now) => {
  if (now && !basis.value) take();
});
if (kept.value) take();
onBeforeRouteLeave(
  () => !changed.value || window.confirm('Leave, and forget what was changed in these rates?'),
);

function open(which: string): void {
  if (changed.value && !window.confirm('Open other rates, and forget what was changed in these?')) return;
  basis.value = undefined;
  void router.push({ name: 'carriers', params: { id: which } });
  if (which === kept.value?.tariff.id) take();
}
function double(): void {
  if (!basis.value) return;
  const tariff = copy(basis.value.tariff);
  const taken = new Set(listed.value.map((one) => one.tariff.id));
  let number = 2;
  while (taken.has(`${tariff.id}-${String(number)}`)) number += 1;
  basis.value = {
    tariff: {
      ...tariff,
      id: `${tariff.id}-${String(number)}`,
      carrier: `${tariff.carrier} ${String(number)}`,
    },
  };
  told.value = undefined;
}
function asText(): void {
  text.value = text.value === undefined ? JSON.stringify(basis.value?.tariff, null, 2) : undefined;
  unread.value = '';
}
/** Takes the text over; one that can't be read stays as it is, with a word about it. */
function readText(): boolean {
  if (text.value === undefined || !basis.value) return true;
  try {
    basis.value = { ...basis.value, tariff: JSON.parse(text.value) as Tariff };
    unread.value = '';
    return true;
  } catch (error) {
    unread.value = `This can’t be read as JSON: ${error instanceof Error ? error.message : ''}`;
    return false;
  }
}
async function put(dry: boolean): Promise<void> {
  if (!readText() || !basis.value) return;
  const asked = basis.value;
  told.value = await rates.put(asked, dry);
  if (!told.value || dry) return;
  basis.value = { version: told.value.version, tariff: copy(told.value.tariff) };
  text.value = undefined;
  await router.push({ name: 'carriers', params: { id: asked.tariff.id } });
}
async function takeTable(dry: boolean): Promise<void> {
  if (csv.value === undefined || basis.value?.version === undefined) return;
  told.value = await rates.table(basis.value.tariff.id, basis.value.version, csv.value, dry);
  if (!told.value || dry) return;
  basis.value = { version: told.value.version, tariff: copy(told.value.tariff) };
  csv.value = undefined;
}
async function drop(): Promise<void> {
  const now = basis.value;
  if (now?.version === undefined) return take();
  if (!window.confirm(`Delete the price list of ${now.tariff.carrier} for good?`)) return;
  if (await rates.drop(now.tariff.id, now.version)) {
    basis.value = undefined;
    await router.push({ name: 'carriers' });
  }
}
const download = computed(() =>
  basis.value
    ? `data:application/json;charset=utf-8,${encodeURIComponent(JSON.stringify(basis.value.tariff, null, 2))}`
    : '',
);
const holds = computed(() => {
  const { valid_from: from, valid_to: to } = basis.value?.tariff ?? {};
  if (from && to) return `holds from ${dayAndYear(from)} to ${dayAndYear(to)}`;
  if (from) return `holds from ${dayAndYear(from)}`;
  return to ? `holds until ${dayAndYear(to)}` : 'holds until it is changed';
});
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
        @click.prevent="open(one.tariff.id)"
        >{{ one.tariff.carrier }}</a
      >
    </nav>
    <p v-if="rates.trouble.value" v-say class="trouble">{{ rates.trouble.value }}</p>
    <p v-if="!rates.tariffs.value" class="soft">Opening the rates</p>
    <p v-else-if="!basis" class="soft">There are no rates yet.</p>
    <div v-else class="split">
      <section :aria-label="basis.tariff.carrier">
        <div class="acts no-print">
          <BButton variant="primary" :disabled="!changed && text === undefined" @click="put(false)"
            >Keep these rates</BButton
          >
          <BButton @click="put(true)">Look them over</BButton>
          <BButton @click="double"><PlusIcon aria-hidden="true" /> Copy</BButton>
          <BButton :aria-pressed="text !== undefined" @click="asText">As text</BButton>
          <a class="btn" :href="download" :download="`${basis.tariff.id}.json`">Save as JSON</a>
          <a
            v-if="basis.version !== undefined"
            class="btn"
            :href="`/api/v1/tariffs/${basis.tariff.id}/table`"
            download
            >Prices as CSV</a
          >
          <BButton
            v-if="basis.version !== undefined"
            :aria-pressed="csv !== undefined"
            @click="csv = csv === undefined ? '' : undefined"
            >Read prices in</BButton
          >
          <BButton variant="link" @click="drop">{{
            basis.version === undefined ? 'Leave it' : 'Delete'
          }}</BButton>
        </div>
        <ul v-if="rates.wrong.value.length > 0" v-say class="wrong" data-test="wrong">
          <li v-for="one in rates.wrong.value" :key="one.place">
            <code>{{ one.place }}</code>: {{ one.says }}
          </li>
        </ul>
        <div v-else-if="told" v-say class="notice" data-test="told">
          The rates hold together. {{ told.affected.length === 0 ? 'No shipment on the bench changes.' : '' }}
          <template v-if="told.affected.length > 0">
            On the bench
            {{
              told.affected.length === 1
                ? 'one shipment changes'
                : `${told.affected.length} shipments change`
            }}: {{ told.affected.map(({ title }) => title).join(', ') }}.
          </template>
        </div>
        <ul v-if="told?.dips.length" class="dips">
          <li v-for="dip in told.dips" :key="dip.place">
            <code>{{ dip.place }}</code>: {{ dip.says }}
          </li>
        </ul>
        <template v-if="csv !== undefined">
          <FileText
            v-model="csv"
            label="Prices"
            name="csv"
            hint="As the table that is given out; what it does not name stays."
          />
          <BButton :disabled="!csv" @click="takeTable(true)">Look it over</BButton>
          <BButton :disabled="!csv" variant="primary" @click="takeTable(false)">Take these prices</BButton>
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
          <div class="head">
            <label
              >Carrier
              <input v-model="basis.tariff.carrier" class="form-control" name="carrier" maxlength="80" />
            </label>
            <label v-if="basis.version === undefined"
              >Short name
              <input v-model="basis.tariff.id" class="form-control" name="id" maxlength="40" />
            </label>
            <label
              >Fuel, %
              <DecimalInput v-model="basis.tariff.fuel_percent" name="fuel_percent" />
            </label>
            <label
              >Tax, %
              <DecimalInput v-model="basis.tariff.tax_percent" name="tax_percent" />
            </label>
            <label v-if="basis.tariff.discount_tiers?.length"
              >Your account
              <select v-model="basis.tariff.tier" class="form-select" name="tier">
                <option v-for="tier in basis.tariff.discount_tiers" :key="tier.name" :value="tier.name">
                  {{ tier.name }}, {{ tier.percent }} % off
                </option>
              </select>
            </label>
          </div>
          <p class="soft figure">
            Prices in {{ basis.tariff.currency }}; {{ holds
            }}<template v-if="basis.version !== undefined">; edition {{ basis.version }}</template
            >. Zones: {{ basis.tariff.zones.map((zone) => zone.name).join(', ') }}.
          </p>
          <ol v-if="basis.tariff.rules?.length" class="figure">
            <li v-for="rule in basis.tariff.rules" :key="rule.name">
              <strong>{{ rule.name }}</strong>: {{ condition(rule.when, units) }} – {{ effect(rule.what)
              }}<span v-if="rule.replaces?.length" class="soft"
                >, in place of {{ rule.replaces.join(', ') }}</span
              >
            </li>
          </ol>
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

<style scoped>
.page {
  max-width: 1280px;
}
h1 {
  margin: 4px 0;
  font-size: 1.75rem;
}
.head label {
  font-weight: 600;
}
.head :is(input, select) {
  font-weight: 400;
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
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-bottom: 12px;
}
.head {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 8px 12px;
  align-items: end;
}
ol {
  padding-left: 24px;
}
.wrong,
.dips,
.notice,
.trouble {
  margin: 0 0 12px;
  padding: 8px 12px;
  border-left: 4px solid var(--rowan);
  background: var(--paper);
  list-style: none;
}
.dips {
  border-color: var(--amber-moss);
}
.notice {
  border-color: var(--moss);
}
.error {
  color: var(--rowan);
}
@media (max-width: 900px) {
  .split {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
