<script setup lang="ts">
import { computed } from 'vue';

import SumOf from '@/parts/SumOf.vue';
import { fieldInSentence } from '@/shipment/fields';
import { STOPS } from '@/shipment/stops';
import { useShipment } from '@/shipment/useShipment';
import { grams, kilograms } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import FindingNote from './FindingNote.vue';
import type { PartName } from './money';
import MoneyStrip from './MoneyStrip.vue';
import { oneIn } from '@/words/grammar';
import TallyFigure from './TallyFigure.vue';
import UnpricedNote from './UnpricedNote.vue';

/** What the foot's figures are made of, and everything that the plan says about itself. */
const { id, draft, summary, plan, quotes, missing, against } = useShipment();
const units = useUnits();
const { told } = defineProps<{
  /** Whether what the plan says is shown, besides the figures. */
  told: boolean;
}>();
const part = defineModel<PartName>('part');

const GOVERNS = {
  actual: 'by weight',
  volumetric: 'by size, not weight',
  minimum: 'the least that is billed',
} as const;

const best = computed(() => summary.value?.best ?? undefined);
const billed = computed(() => quotes.value.find((quote) => quote.id === best.value?.id)?.billable);
const shown = computed(() => plan.value?.findings.filter(({ level }) => level !== 'note') ?? []);
const notes = computed(() => plan.value?.findings.filter(({ level }) => level === 'note') ?? []);
/** Whether what is in the box was on a scale. */
const weighed = computed(() => {
  const pieces = [draft.piece, ...Object.values(draft.others).map(({ piece }) => piece)];
  const on = pieces.filter(({ weight }) => weight).length;
  if (pieces.length === 1) return on ? 'piece weighed' : 'piece estimated';
  if (on === pieces.length) return 'pieces weighed';
  return on === 0 ? 'pieces estimated' : 'some pieces estimated';
});
/** What the parcel weighs: as it was read while that still holds, else as it was worked out. */
const weight = computed(() => {
  const [found, planned] = [summary.value?.weighed, summary.value?.weight];
  if (!planned) return undefined;
  if (found?.stands) {
    return { mass: found.mass_g, note: `as weighed; planned ${kilograms(planned.mass_g)}` };
  }
  return { mass: planned.mass_g, note: `± ${kilograms(planned.plus_minus_g)}, ${weighed.value}` };
});
/** What is in the way besides the findings of the plan, which stand below with what answers them. */
const others = computed(() => against.value.filter(({ code }) => !code));
const titled = (stop: string) => STOPS.find(({ name }) => name === stop)?.title ?? stop;
const lacking = computed(() => missing.value.map(fieldInSentence).join(', '));
</script>

<template>
  <div class="sheet">
    <section aria-label="Figures">
      <template v-if="summary">
        <TallyFigure
          v-if="summary.one_in"
          name="arrive damaged"
          :shown="oneIn(summary.one_in.about)"
          :note="`${oneIn(summary.one_in.from)} to ${oneIn(summary.one_in.to)}`"
          :minded="summary.past_accepted"
          :value="summary.one_in.about"
          :change="(by: number) => (by > 0 ? 'likelier to arrive whole' : 'likelier to be damaged')"
          more-is-better
        />
        <TallyFigure
          name="outside"
          :shown="units.size(summary.outside.across_mm, summary.outside.up_mm, summary.outside.through_mm)"
          :value="summary.outside.through_mm"
          :change="(by: number) => `${units.signed(by)} through`"
        />
        <TallyFigure
          v-if="weight"
          name="weight"
          :shown="kilograms(weight.mass)"
          :note="weight.note"
          :value="weight.mass"
          :change="(by: number) => `${by < 0 ? '−' : '+'}${Math.abs(by).toFixed(0)} g`"
        />
        <TallyFigure
          v-if="billed"
          name="billed as"
          :shown="kilograms(billed.billable_g)"
          :note="GOVERNS[billed.governs]"
          :minded="billed.governs === 'volumetric'"
          :value="billed.billable_g"
          :change="(by: number) => `${by < 0 ? '−' : '+'}${kilograms(Math.abs(by))}`"
        />
        <TallyFigure
          name="work"
          :shown="`${summary.minutes.toFixed(0)} min`"
          :value="summary.minutes"
          :change="(by: number) => `${by < 0 ? '−' : '+'}${Math.abs(by).toFixed(0)} min`"
        />
      </template>
      <p v-else class="soft">The figures appear once you enter {{ lacking || 'what it is' }}.</p>
    </section>
    <section v-if="summary" aria-label="Money">
      <MoneyStrip v-if="summary.cost" v-model:open="part" :cost="summary.cost" />
      <UnpricedNote v-if="plan?.unpriced?.length" :materials="plan.unpriced" />
      <p v-if="best" class="soft by">
        {{ best.chosen ? 'Chosen' : 'The best that takes it' }}: {{ best.carrier }} {{ best.service }},
        {{ best.days_from }}–{{ best.days_to }} days<span v-if="best.uncovered" class="minded"
          >; <SumOf of="not_covered" :sum="best.uncovered" /> of its value not covered</span
        >
        <template v-if="!summary.cost"
          >; <SumOf of="quoted" :sum="best.total" />, and no rate of that money is kept</template
        >
      </p>
      <p v-if="plan && plan.tally.plastic_g >= 0.5" class="soft by">
        {{ grams(plan.tally.plastic_g) }} plastic
      </p>
    </section>
    <section v-if="plan && told" aria-label="Findings">
      <ul v-if="others.length > 0" class="others">
        <li v-for="matter in others" :key="matter.kind" :class="matter.level">
          {{ matter.says }}
          <RouterLink :to="{ name: matter.at, params: { id } }" class="no-print">{{
            titled(matter.at)
          }}</RouterLink>
        </li>
      </ul>
      <p v-else-if="plan.findings.length === 0" class="soft">Ready</p>
      <FindingNote v-for="finding in shown" :key="finding.says" :finding="finding" />
      <template v-if="notes.length > 0">
        <h3 class="soft">Good to know</h3>
        <FindingNote v-for="finding in notes" :key="finding.says" :finding="finding" />
      </template>
    </section>
  </div>
</template>

<style scoped>
.sheet {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(280px, 100%), 1fr));
  gap: 8px 32px;
  align-items: start;
}
.by {
  margin: 6px 0 0;
  font-size: var(--type-small);
}
.minded {
  color: var(--amber-moss);
  font-weight: 600;
}
.others {
  margin: 0;
  padding: 0;
  list-style: none;
}
.others a {
  display: inline-flex;
  min-height: 44px;
  align-items: center;
}
.others .mind {
  color: var(--amber-moss);
}
h3 {
  margin: 12px 0 0;
  font-size: var(--type-text);
}
@media print {
  .sheet {
    display: block;
    max-width: 320px;
  }
}
</style>
