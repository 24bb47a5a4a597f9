<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import type { Quote } from '@/api/types';
import { reason } from '@/frame/words';
import { kilograms, money } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import QuoteLines from './QuoteLines.vue';

const { quote, chosen } = defineProps<{ quote: Quote; chosen: boolean }>();
const open = defineModel<boolean>('open', { required: true });
const emit = defineEmits<{ choose: [] }>();
const units = useUnits();

const GOVERNS = { actual: 'weight', volumetric: 'size', minimum: 'the least' } as const;
const handover = computed(() => (quote.handover === 'collection' ? 'collected' : 'to the counter'));
const refused = computed(() =>
  quote.offer.kind === 'refused' ? quote.offer.reasons.map((why) => reason(why, units)) : [],
);
</script>

<template>
  <div class="service" :class="{ chosen, refused: refused.length > 0 }" role="rowgroup">
    <button type="button" class="row figure" role="row" :aria-expanded="open" @click="open = !open">
      <span role="cell">
        <strong>{{ quote.service }}</strong>
        <span class="soft">{{ quote.carrier }}, {{ handover }}{{ quote.tracked ? ', tracked' : '' }}</span>
      </span>
      <span role="cell" class="extra">{{ quote.days_from }}–{{ quote.days_to }}</span>
      <span role="cell" class="extra number" :class="{ governs: quote.billable.governs === 'actual' }">
        {{ kilograms(quote.billable.actual_g) }}
      </span>
      <span role="cell" class="extra number" :class="{ governs: quote.billable.governs === 'volumetric' }">
        {{ quote.billable.volumetric_g > 0 ? kilograms(quote.billable.volumetric_g) : '–' }}
      </span>
      <span role="cell" class="extra number">
        {{ kilograms(quote.billable.billable_g) }}
        <span class="soft">by {{ GOVERNS[quote.billable.governs] }}</span>
      </span>
      <span role="cell" class="number">
        <strong v-if="quote.offer.kind === 'priced'" class="total">{{ money(quote.offer.total) }}</strong>
        <span v-else class="no">refused</span>
        <span v-if="chosen" class="mark">chosen</span>
        <span v-if="quote.uncovered" class="short">{{ money(quote.uncovered) }} not covered</span>
        <span v-else-if="quote.expected_loss" class="soft">
          and {{ money(quote.expected_loss) }} expected loss
        </span>
      </span>
    </button>
    <p v-if="refused.length > 0" class="why figure">{{ refused.join('; ') }}</p>
    <div v-if="open && quote.offer.kind === 'priced'" class="body">
      <QuoteLines :quote="quote" :offer="quote.offer" />
      <BButton :variant="chosen ? 'secondary' : 'primary'" class="no-print" @click="emit('choose')">
        {{ chosen ? 'Choose it no longer' : `Send by ${quote.service}` }}
      </BButton>
    </div>
  </div>
</template>

<style scoped>
.service {
  border-bottom: 1px solid var(--sedge);
  border-left: 4px solid transparent;
}
.service:last-child {
  border-bottom: 0;
}
.chosen {
  border-left-color: var(--moss);
  background: var(--lichen);
}
.row {
  display: grid;
  grid-template-columns: var(--service-columns);
  gap: 12px;
  align-items: center;
  width: 100%;
  min-height: 60px;
  padding: 6px 12px 6px 8px;
  border: 0;
  background: none;
  color: inherit;
  text-align: left;
}
.row > span {
  display: flex;
  flex-direction: column;
  line-height: 1.3;
}
.number {
  text-align: right;
}
.row .governs {
  color: var(--amber-moss);
  font-weight: 600;
}
.total {
  font-size: 1.1875rem;
}
.soft {
  font-size: 0.9375rem;
}
.mark {
  color: var(--moss);
  font-weight: 600;
}
.short {
  color: var(--amber-moss);
  font-size: 0.9375rem;
}
.refused .row {
  color: var(--peat-soft);
}
.no {
  color: var(--rowan);
  font-weight: 600;
}
.why {
  margin: 0;
  padding: 0 12px 8px 8px;
  color: var(--rowan);
}
.body {
  padding: 0 12px 12px 8px;
}
@media (max-width: 640px) {
  .extra {
    display: none !important;
  }
}
</style>
