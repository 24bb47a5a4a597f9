<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import { useNextStep } from '@/frame/foot';
import type { Said } from '@/frame/foot';
import DraftField from '@/parts/DraftField.vue';
import SumOf from '@/parts/SumOf.vue';
import { vSay } from '@/said/say';
import { useShipment } from '@/shipment/useShipment';
import { kilograms } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import { difference, explanations, verdictWords } from './verdict';
import { useScale } from './useScale';
import WeightStack from './WeightStack.vue';

const { id, draft, plan, summary, line, found, restsOn, stored, save } = useShipment();
const units = useUnits();

const { data: scale } = useRead({
  queryKey: ['scale'],
  queryFn: ({ signal }) => answer(api.GET('/api/v1/scale', { signal })),
});
const connected = computed(() => scale.value?.connected === true);
/** What is stored is what a reading is held against. */
const planned = computed(() => stored.value?.summary?.fingerprint);
const { reading, tare, setTare } = useScale(id, planned, connected);

const STATES = {
  stable: 'at rest',
  unstable: 'coming to rest',
  overload: 'too heavy for this scale',
  away: 'does not answer: look at its cable, or type what it reads',
} as const;
const SIDES = [
  { path: 'parcel.across', side: 'across_mm' },
  { path: 'parcel.up', side: 'up_mm' },
  { path: 'parcel.through', side: 'through_mm' },
] as const;

const net = computed(() => reading.value.net_g ?? undefined);
const gross = computed(() => reading.value.gross_g ?? undefined);
const rests = computed(() => reading.value.state === 'stable');
/** Nothing, or only the tare, lies on it. */
const LEAST_G = 20;
const canTake = computed(() => rests.value && (net.value ?? 0) >= LEAST_G);
const beside = computed(() => {
  const { off_g: off, planned } = reading.value;
  if (off === null || off === undefined || !planned || !canTake.value) return '';
  if (Math.abs(off) <= Math.max(planned.plus_minus_g, LEAST_G)) return 'as planned';
  return `${difference(off)} ${off > 0 ? 'over' : 'under'} the plan`;
});
const verdict = computed(() => found.value?.verdict ?? undefined);
const why = computed(() => (verdict.value ? explanations(verdict.value) : []));
const settled = computed(() => line.value?.stops.find(({ stop }) => stop === 'weigh')?.mark === 'done');
const read = computed(() => (canTake.value ? net.value : found.value?.mass_g) ?? undefined);
const larger = computed(() => {
  const [across, up, through] = found.value?.off_mm ?? [0, 0, 0];
  const off = [
    { side: 'across', by: across ?? 0 },
    { side: 'up', by: up ?? 0 },
    { side: 'through', by: through ?? 0 },
  ].filter(({ by }) => Math.abs(by) >= 0.5);
  return off.map(({ side, by }) => `${units.signed(by)} ${side}`).join(', ');
});
const rests_on = computed(() => {
  const { mass, size } = restsOn.value;
  if (mass === 'measured' && size === 'measured') return 'what was weighed and measured';
  if (mass === 'measured') return 'what was weighed, and the planned size';
  return size === 'measured' ? 'the planned weight, and what was measured' : 'what is planned';
});

function take(): void {
  draft.parcel.weight = `${((net.value ?? 0) / 1000).toFixed(3)} kg`;
  void save();
}
function settle(): void {
  draft.settled.weigh = draft.parcel.weight;
  void save();
}
useNextStep((): Said => {
  if (!plan.value) return { verb: { text: 'Measure it first', to: { name: 'measure', params: { id } } } };
  const onward = { name: 'send', params: { id } };
  const stands = found.value?.stands === true;
  if (connected.value && !stands && canTake.value)
    return { verb: { text: `Take ${kilograms(net.value ?? 0)}`, press: take } };
  if (!stands)
    return {
      verb: { text: 'Send by the planned weight', to: onward },
      hint: { level: 'note', says: connected.value ? 'Lay it on the scale.' : 'It is not weighed yet.' },
    };
  if (verdict.value && !verdict.value.as_planned && !settled.value)
    return {
      verb: { text: 'Confirm this weight', press: settle },
      hint: { level: 'mind', says: verdictWords(verdict.value) },
    };
  return { verb: { text: 'Continue to Send', to: onward } };
});
function takeBack(): void {
  Object.assign(draft.parcel, { weight: '', across: '', up: '', through: '' });
  void save();
}
</script>

<template>
  <div v-if="plan && summary" class="weigh">
    <section aria-label="The scale" class="panel">
      <div class="heading-row"><h2>On the scale</h2></div>
      <template v-if="connected">
        <p class="big figure" :class="reading.state" data-test="reading">
          {{ net === undefined ? '–' : kilograms(net) }}
        </p>
        <p class="state" role="status">
          <span>The scale {{ reading.state === 'away' ? '' : 'is ' }}{{ STATES[reading.state] }}</span>
          <strong v-if="beside">, {{ beside }}</strong>
        </p>
        <div class="buttons no-print">
          <BButton v-if="found?.stands" variant="outline-secondary" :disabled="!canTake" @click="take">
            Take the reading again
          </BButton>
          <BButton variant="outline-secondary" :disabled="!rests" @click="setTare(gross ?? 0)">
            Tare
          </BButton>
          <BButton v-if="tare > 0" variant="outline-secondary" @click="setTare(0)">
            No tare ({{ difference(tare) }})
          </BButton>
        </div>
        <p v-if="scale?.stand_in" class="soft no-print">
          This is a stand-in for a scale.
          <a :href="scale.stand_in" target="_blank" rel="noopener">Lay something on it</a>
        </p>
      </template>
      <p v-else-if="scale" class="soft">No scale is connected: type below what yours reads.</p>
      <h3>Or typed</h3>
      <div class="typed">
        <DraftField path="parcel.weight" :hint="`planned ${kilograms(summary.weight.mass_g)}`" />
        <DraftField
          v-for="{ path, side } in SIDES"
          :key="path"
          :path="path"
          :hint="`planned ${units.length(summary.outside[side])}`"
        />
      </div>
      <BButton v-if="found" size="sm" variant="outline-secondary" class="no-print" @click="takeBack">
        Take weight and size back
      </BButton>
    </section>
    <section aria-label="Beside the plan" class="plan">
      <div class="heading-row"><h2>Beside the plan</h2></div>
      <p v-if="found && !found.stands" class="stop" data-test="stale">
        The plan changed or the parcel was opened after weighing. Weigh it again; until then prices use the
        plan.
      </p>
      <template v-else-if="verdict">
        <p v-say data-test="verdict" :class="{ mind: !verdict.as_planned && !settled }">
          {{ verdictWords(verdict) }}
        </p>
        <template v-if="!verdict.as_planned">
          <p v-if="why.length > 0">It could be:</p>
          <ul v-if="why.length > 0">
            <li v-for="reason in why" :key="reason">{{ reason }}</li>
          </ul>
          <p v-else class="soft">No single layer explains it. Check for extra things in the box.</p>
          <p v-if="settled" class="soft">You confirmed this weight.</p>
        </template>
      </template>
      <p v-if="larger && found?.stands" data-test="larger">Measured {{ larger }} against the plan.</p>
      <WeightStack :plan="plan" :read="read" />
      <p class="soft rests" data-test="rests-on">
        Prices use {{ rests_on
        }}<template v-if="summary.best"
          >:
          <SumOf
            :of="summary.cost ? 'to_carrier' : 'quoted'"
            :sum="summary.cost?.to_carrier ?? summary.best.total"
          />
          to pay {{ summary.best.carrier }} for {{ summary.best.service }}</template
        >. <RouterLink :to="{ name: 'price', params: { id } }">All prices</RouterLink> ·
        <RouterLink :to="{ name: 'weighings' }">Scale readings</RouterLink>
      </p>
    </section>
  </div>
  <p v-else class="soft">
    Measure the piece first to compare weights.
    <RouterLink :to="{ name: 'measure', params: { id } }">Measure the piece</RouterLink>
  </p>
</template>

<style scoped>
.weigh {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(340px, 100%), 1fr));
  gap: 16px 24px;
  align-items: start;
}
.panel {
  padding: 12px 16px 16px;
}
h3 {
  margin: 16px 0 4px;
  font-size: var(--type-strong);
}
.big {
  margin: 0;
  font-size: calc(var(--type-huge) * 2.1);
  font-weight: 600;
  line-height: 1.1;
}
.big.unstable {
  color: var(--peat-soft);
}
.big.away,
.big.overload {
  color: var(--rowan);
}
.state {
  margin: 0 0 12px;
  font-size: var(--type-strong);
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-bottom: 8px;
}
.buttons > * {
  min-height: 44px;
}
.typed {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 4px 12px;
}
.plan p {
  margin: 0 0 8px;
}
.plan ul {
  margin: 0 0 8px;
  padding-left: 20px;
}
.stop {
  color: var(--rowan);
  font-weight: 600;
}
.mind {
  color: var(--amber-moss);
  font-weight: 600;
}
.rests {
  margin-top: 8px;
}
</style>
