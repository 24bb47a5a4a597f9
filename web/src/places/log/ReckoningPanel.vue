<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';

import { answer, api } from '@/api/client';
import { read } from '@/api/queries';
import type { Reckoning } from '@/api/types';
import { useStudio } from '@/api/useStudio';
import { counted } from '@/words/grammar';
import { vSay } from '@/said/say';
import { usedAgain } from '@/units/show';

import OddsBars from './OddsBars.vue';
import WeightBars from './WeightBars.vue';

/** What many parcels say about the plans: does the model hold, do the weights, and what was saved. */
const { told, filtered } = defineProps<{
  told: Reckoning;
  /** Only some of the log is shown, which is no count to take over. */
  filtered: boolean;
}>();
/** Fewer parcels say what they can in a sentence. */
const MANY = 20;
const { studio } = useStudio();
const money = computed(() => studio.value?.catalogue.currency ?? '');
const again = computed(() => usedAgain(told.used_again_g, told.used_again_litres));
const known = computed(() => told.counted.parcels);
const many = computed(() => known.value >= MANY);
const BY = { class: 'kind of piece', route: 'way', carrier: 'carrier', preset: 'preset' } as const;

const parted = computed(() => {
  const by: Partial<Record<keyof typeof BY, Reckoning['groups']>> = {};
  for (const group of told.groups) (by[group.by] ??= []).push(group);
  return by;
});

/** Less than this is written as nothing. */
const LEAST_PERCENT = 0.05;
const onAverage = computed(() => {
  const mean = told.weights.mean_percent;
  if (Math.abs(mean) < LEAST_PERCENT) return 'on average they weighed what was planned';
  return `on average ${Math.abs(mean).toFixed(1)} % ${mean < 0 ? 'lighter' : 'heavier'}`;
});
const kept = computed(() => studio.value?.rules.odds?.counted);
const anew = computed(
  () =>
    !filtered &&
    known.value > 0 &&
    (kept.value?.parcels !== told.counted.parcels || kept.value.damaged !== told.counted.damaged),
);
const busy = ref(false);
const says = ref('');
/** Takes the counts over into the odds: they take the place of what was counted before, so that no parcel counts twice. */
async function takeOver(): Promise<void> {
  if (!studio.value) return;
  busy.value = true;
  says.value = '';
  try {
    const { rules } = studio.value;
    const body = { rules: { ...rules, odds: { ...rules.odds, counted: told.counted } } };
    await answer(api.PUT('/api/v1/studio/rules', { body: body as never }));
    await read.invalidateQueries({ queryKey: ['studio'] });
    says.value = 'Taken over: every plan follows your own record.';
  } catch (error) {
    says.value = `It couldn’t be applied: ${error instanceof Error ? error.message : 'something went wrong in the page'}.`;
  } finally {
    busy.value = false;
  }
}
/** A number of parcels that may be less than one. */
const few = (count: number) => count.toFixed(count < 1 ? 2 : 1);
const off = (said: number, was: number) => (said > 0 ? `${(((was - said) / said) * 100).toFixed(0)} %` : '');
</script>

<template>
  <div class="two-columns">
    <div>
      <section class="panel" aria-label="Does the model hold?">
        <h2>Does the model hold?</h2>
        <template v-if="known > 0">
          <p data-test="holds">
            {{ told.damaged }} of {{ counted(known, 'parcel') }} arrived damaged;
            {{ few(told.said_damaged) }} expected.
            <template v-if="told.lost > 0 || told.said_lost >= 0.1">
              {{ told.lost }} lost; {{ few(told.said_lost) }} expected.
            </template>
          </p>
          <template v-if="many">
            <OddsBars :bands="told.bands" />
            <p class="soft">
              Bars are predictions, dots results, lines the range that so few parcels allow: a dot says little
              while its line crosses the bar.
            </p>
          </template>
          <p v-else class="soft">From {{ MANY }} parcels on it is drawn; so few say little.</p>
          <p>
            By your own parcels alone, damage is {{ told.k.toFixed(2) }} times as likely as the tables say.
            <template v-if="kept && kept.parcels > 0">
              The odds count {{ kept.parcels }} of them, {{ kept.damaged }} damaged.
            </template>
            <template v-else>The odds don’t count them yet.</template>
          </p>
          <BButton v-if="anew" variant="primary" class="no-print" :disabled="busy" @click="takeOver">
            Let the odds count these {{ known }}
          </BButton>
          <p v-if="says" v-say data-test="taken-over">{{ says }}</p>
        </template>
        <p v-else class="soft">No outcomes yet. Record them at After, and they count here.</p>
      </section>
    </div>
    <div>
      <section class="panel" aria-label="Do the weights hold?">
        <h2>Do the weights hold?</h2>
        <template v-if="told.weights.parcels > 0">
          <p data-test="weights">
            {{ told.weights.within }} of {{ counted(told.weights.parcels, 'weight') }} were within the
            expected range, where about two thirds belong; {{ onAverage }}.
            <RouterLink :to="{ name: 'weighings' }">Material weights from readings</RouterLink>
          </p>
          <WeightBars v-if="told.weights.parcels >= MANY" :bins="told.weights.bins" />
        </template>
        <p v-else class="soft">None was weighed.</p>
        <table class="figure">
          <tbody>
            <tr v-if="told.carriage.parcels > 0">
              <th scope="row">carriage</th>
              <td>
                {{ told.carriage.was.toFixed(2) }} {{ money }} for {{ told.carriage.said.toFixed(2) }} as
                planned,
                {{ off(told.carriage.said, told.carriage.was) }}
              </td>
            </tr>
            <tr v-if="told.minutes.parcels > 0">
              <th scope="row">packing</th>
              <td>
                {{ told.minutes.was.toFixed(0) }} min for {{ told.minutes.said.toFixed(0) }} as planned,
                {{ off(told.minutes.said, told.minutes.was) }}
              </td>
            </tr>
            <tr v-if="Number(told.saved) > 0 || again">
              <th scope="row">saved by reuse</th>
              <td data-test="saved">
                {{ told.saved }} {{ money
                }}<template v-if="again">, {{ again }} not bought and not thrown away</template>
              </td>
            </tr>
            <tr v-if="Number(told.paid) > 0">
              <th scope="row">paid by carriers</th>
              <td>{{ told.paid }} {{ money }}</td>
            </tr>
          </tbody>
        </table>
      </section>
    </div>
    <section class="panel wide" aria-label="Losses">
      <h2>Damage and loss</h2>
      <table class="figure groups">
        <thead>
          <tr>
            <th scope="col">which</th>
            <th scope="col" class="number">left</th>
            <th scope="col" class="number">said damaged</th>
            <th scope="col" class="number">damaged</th>
            <th scope="col" class="number">lost</th>
          </tr>
        </thead>
        <tbody v-for="(groups, by) in parted" :key="by">
          <tr>
            <th scope="rowgroup" colspan="5" class="by soft">by {{ BY[by] }}</th>
          </tr>
          <tr v-for="group in groups" :key="group.name">
            <th scope="row">{{ group.name }}</th>
            <td class="number">{{ group.parcels }}</td>
            <td class="number">{{ group.said.toFixed(2) }}</td>
            <td class="number" :class="{ harm: group.damaged > 0 }">{{ group.damaged }}</td>
            <td class="number" :class="{ harm: group.lost > 0 }">{{ group.lost }}</td>
          </tr>
        </tbody>
      </table>
    </section>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.panel {
  min-width: 0;
  padding: 12px 16px 16px;
}
h2 {
  margin: 0 0 4px;
  font-size: var(--type-lead);
}
p {
  margin: 0 0 8px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  padding: 4px 8px 4px 0;
  border-bottom: 1px solid var(--sedge);
  text-align: left;
  vertical-align: baseline;
}
thead th {
  color: var(--peat-soft);
  font-weight: 400;
}
.number {
  text-align: right;
}
.by {
  padding-top: 10px;
  font-weight: 400;
}
.harm {
  color: var(--rowan);
  font-weight: 600;
}
@include at.phone {
  .panel {
    padding-inline: 10px;
  }
  th,
  td {
    padding-right: 4px;
  }
}
</style>
