<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import type { Arrival, Quote } from '@/api/types';
import MoneyBar from '@/frame/MoneyBar.vue';
import { reason } from '@/words/carriers';
import SumOf from '@/parts/SumOf.vue';
import { kilograms } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import { promiseWords } from './arrive';
import QuoteLines from './QuoteLines.vue';

const { quote, chosen, arrival, promised } = defineProps<{
  quote: Quote;
  chosen: boolean;
  arrival?: Arrival;
  /** The day it was promised for, if any. */
  promised?: string;
}>();
const open = defineModel<boolean>('open', { required: true });
const emit = defineEmits<{ notAfterAll: [] }>();
const units = useUnits();

const GOVERNS = { actual: 'weight', volumetric: 'size', minimum: 'the least' } as const;
const handover = computed(() => (quote.handover === 'collection' ? 'collected' : 'drop-off'));
const days = computed(() => {
  // Whoever quoted it named none.
  if (quote.days_to === 0) return 'days not named';
  const [from, to] = [String(quote.days_from), String(quote.days_to)];
  return `${from === to ? to : `${from}–${to}`} ${to === '1' ? 'day' : 'days'}`;
});
const met = computed(() => (arrival ? promiseWords(arrival, promised ?? '') : ''));
const late = computed(() => arrival?.over === true || arrival?.promise === 'no');
/** Priced in other money than the studio counts in. */
const abroad = computed(
  () => quote.offer.kind === 'priced' && quote.total_here?.currency !== quote.offer.total.currency,
);
/** What cover there is, and what it costs. */
const covered = computed(() => {
  if (quote.offer.kind !== 'priced') return { amount: '' };
  if (quote.offer.excluded.length > 0) return { amount: 'none' };
  const premium = quote.cover?.bought ? `+${quote.cover.premium.amount}` : 'incl.';
  return { amount: premium, to: quote.offer.covered };
});
const refused = computed(() =>
  quote.offer.kind === 'refused' ? quote.offer.reasons.map((why) => reason(why, units)) : [],
);
</script>

<template>
  <tbody class="service" :class="{ chosen, refused: refused.length > 0 }">
    <tr class="row figure">
      <th scope="row">
        <button type="button" class="open" :aria-expanded="open" @click="open = !open">
          <strong>{{ quote.service }}</strong>
          <span class="soft"
            >{{ quote.carrier }}, {{ days }}, {{ handover
            }}{{ quote.tracked ? ', tracked' : ', not tracked' }}</span
          >
          <span v-if="met" class="promise" :class="{ late, perhaps: arrival?.promise === 'perhaps' }"
            >{{ met
            }}<template v-if="arrival?.would_save"
              >, saves <SumOf of="difference" :sum="arrival.would_save" /></template
          ></span>
        </button>
      </th>
      <td class="extra number" :class="{ governs: quote.billable.governs === 'actual' }">
        {{ kilograms(quote.billable.actual_g) }}
      </td>
      <td class="extra number" :class="{ governs: quote.billable.governs === 'volumetric' }">
        {{ quote.billable.volumetric_g > 0 ? kilograms(quote.billable.volumetric_g) : '–' }}
      </td>
      <td class="extra number">
        {{ kilograms(quote.billable.billable_g) }}
        <span class="soft">by {{ GOVERNS[quote.billable.governs] }}</span>
      </td>
      <template v-if="quote.offer.kind === 'priced'">
        <td class="extra number">
          <SumOf v-if="quote.total_here" of="to_carrier" :sum="quote.total_here" bare />
          <template v-else>–</template>
          <span v-if="abroad" class="foreign soft"><SumOf of="quoted" :sum="quote.offer.total" /></span>
        </td>
        <td class="extra number">
          {{ covered.amount }}
          <span v-if="covered.to" class="soft">to <SumOf of="covered" :sum="covered.to" /></span>
          <span v-else class="soft">excluded</span>
        </td>
        <td class="extra number">
          <SumOf v-if="quote.expected_loss" of="expected_loss" :sum="quote.expected_loss" bare />
          <template v-else>–</template>
        </td>
        <td class="number">
          <template v-if="quote.cost">
            <strong class="total"><SumOf of="total" :sum="quote.cost.total" /></strong>
            <MoneyBar :cost="quote.cost" class="mini" aria-hidden="true" />
          </template>
          <span v-else class="short">no rate of {{ quote.offer.total.currency }} is kept</span>
          <span v-if="chosen" class="mark">chosen</span>
          <span v-if="quote.uncovered" class="short"
            ><SumOf of="not_covered" :sum="quote.uncovered" /> not covered</span
          >
        </td>
      </template>
      <td v-else colspan="4" class="number">
        <span class="no">refused</span>
        <span v-if="chosen" class="mark">chosen</span>
      </td>
    </tr>
    <tr v-if="refused.length > 0">
      <td colspan="8" class="why figure">{{ refused.join('; ') }}</td>
    </tr>
    <tr v-if="open && quote.offer.kind === 'priced'">
      <td colspan="8" class="body">
        <div class="sides">
          <div>
            <QuoteLines :quote="quote" :offer="quote.offer" />
            <BButton v-if="chosen" size="sm" class="no-print" @click="emit('notAfterAll')">
              Don’t send by it after all
            </BButton>
            <slot name="under" />
          </div>
          <div><slot /></div>
        </div>
      </td>
    </tr>
  </tbody>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.foreign {
  display: block;
}

.service {
  border-top: 1px solid var(--sedge);
}
.chosen {
  background: var(--lichen);
}
.chosen th {
  box-shadow: inset 4px 0 var(--moss);
}
.row {
  position: relative;
}
.row > * {
  height: 60px;
  padding: 6px;
  font-weight: 400;
  line-height: 1.3;
  vertical-align: middle;
}
.row > th {
  padding-left: 12px;
  text-align: left;
}
.row > :last-child {
  padding-right: 12px;
}
.row span,
.row strong {
  display: block;
}
.open {
  min-height: 44px;
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  text-align: left;
}
/* The whole row is pressed. */
.open::after {
  position: absolute;
  inset: 0;
  content: '';
}
.open:focus-visible {
  outline: none;
}
.open:focus-visible::after {
  outline: 3px solid var(--heather);
  outline-offset: -2px;
}
.promise {
  color: var(--moss);
  font-size: var(--type-small);
}
.promise.perhaps {
  color: var(--amber-moss);
}
.promise.late {
  color: var(--rowan);
}
.number {
  text-align: right;
}
.row .governs {
  color: var(--amber-moss);
  font-weight: 600;
}
.row .sum {
  display: inline;
}
.mini {
  width: 120px;
  margin-left: auto;
}
.total {
  font-size: var(--type-lead);
}
.soft {
  font-size: var(--type-small);
}
.mark {
  color: var(--moss);
  font-weight: 600;
}
.short {
  color: var(--amber-moss);
  font-size: var(--type-small);
}
.refused .row {
  color: var(--peat-soft);
}
.no {
  color: var(--rowan);
  font-weight: 600;
}
.why {
  padding: 0 12px 8px;
  color: var(--rowan);
}
.body {
  padding: 0 12px 12px;
}
.sides {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(330px, 100%), 1fr));
  gap: 12px 24px;
}
@include at.phone {
  .extra {
    display: none !important;
  }
}
</style>
