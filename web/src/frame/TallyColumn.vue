<script setup lang="ts">
import { computed, ref } from 'vue';

import { fieldInSentence } from '@/shipment/fields';
import { useShipment } from '@/shipment/useShipment';
import { grams, kilograms, money } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import FindingNote from './FindingNote.vue';
import MoneyStrip from './MoneyStrip.vue';
import { counted, oneIn } from './words';
import TallyFigure from './TallyFigure.vue';

const { draft, summary, plan, quotes, missing } = useShipment();
const units = useUnits();
const open = ref(false);

const GOVERNS = {
  actual: 'by weight',
  volumetric: 'by size, not weight',
  minimum: 'the least that is billed',
} as const;

const best = computed(() => summary.value?.best ?? undefined);
const uncovered = computed(() =>
  best.value?.uncovered ? `; ${money(best.value.uncovered)} of its value not covered` : '',
);
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
const lacking = computed(() => missing.value.map(fieldInSentence).join(', '));
</script>

<template>
  <aside class="side" :class="{ open }" aria-label="Tally">
    <button type="button" class="drawer no-print" :aria-expanded="open" @click="open = !open">
      <template v-if="summary">
        <span class="figure">{{
          units.size(summary.outside.across_mm, summary.outside.up_mm, summary.outside.through_mm)
        }}</span>
        <span v-if="summary.one_in" class="figure">{{ oneIn(summary.one_in.about) }}</span>
        <span v-if="weight" class="figure weight">{{ kilograms(weight.mass) }}</span>
        <span class="figure">{{ summary.cost ? money(summary.cost.to_send) : '–' }}</span>
      </template>
      <template v-else>Tally</template>
    </button>
    <div class="figures">
      <template v-if="summary">
        <TallyFigure
          v-if="summary.one_in"
          name="arrives damaged"
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
        <MoneyStrip v-if="summary.cost" :cost="summary.cost" />
        <p v-if="best" class="soft by">
          {{ best.chosen ? 'Chosen' : 'The best that takes it' }}: {{ best.carrier }} {{ best.service }},
          {{ best.days_from }}–{{ best.days_to }} days<span :class="{ minded: best.uncovered }">{{
            uncovered
          }}</span>
          <template v-if="!summary.cost"
            >; {{ money(best.total) }}, and no rate of that money is kept</template
          >
        </p>
        <p v-if="plan && plan.tally.plastic_g >= 0.5" class="soft by">
          {{ grams(plan.tally.plastic_g) }} of it plastic
        </p>
      </template>
      <p v-else class="soft">The figures stand here once you have said {{ lacking || 'what it is' }}.</p>
      <FindingNote v-for="finding in shown" :key="finding.says" :finding="finding" />
      <details v-if="notes.length > 0" class="notes">
        <summary>{{ counted(notes.length, 'thing') }} good to know</summary>
        <FindingNote v-for="finding in notes" :key="finding.says" :finding="finding" />
      </details>
    </div>
  </aside>
</template>

<style scoped>
.notes {
  margin-top: 8px;
}
.notes summary {
  min-height: 44px;
  color: var(--water);
  cursor: pointer;
}
.by {
  margin: 6px 0 0;
  font-size: 0.9375rem;
}
.minded {
  color: var(--amber-moss);
  font-weight: 600;
}
.drawer {
  display: none;
}
@media (max-width: 1100px) {
  .side {
    position: fixed;
    right: 0;
    bottom: 0;
    left: 0;
    z-index: 20;
    max-height: 80vh;
    overflow: auto;
    padding: 0;
    border: 0;
    border-top: 2px solid var(--peat);
    background: var(--bog-cotton);
    box-shadow: var(--shadow);
  }
  .drawer {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    width: 100%;
    min-height: 52px;
    align-items: center;
    padding: 8px 20px;
    border: 0;
    background: none;
    color: var(--peat);
    font-weight: 600;
  }
  .figures {
    display: none;
    max-width: 560px;
    margin: 0 auto;
    padding: 0 20px 16px;
  }
  .open .figures {
    display: block;
  }
}
@media (max-width: 640px) {
  .drawer {
    gap: 8px;
    padding: 8px 12px;
    white-space: nowrap;
  }
  .drawer .weight {
    display: none;
  }
}
@media print {
  .side {
    position: static;
    border: 0;
    box-shadow: none;
  }
  .figures {
    display: block;
    max-width: 320px;
    margin: 0;
    padding: 0;
  }
  .drawer {
    display: none;
  }
}
</style>
