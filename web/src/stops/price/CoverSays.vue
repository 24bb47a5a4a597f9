<script setup lang="ts">
import { computed } from 'vue';

import type { Offer, Quote } from '@/api/types';
import { money } from '@/units/show';

/** Whether cover is worth its premium, in one sentence; and what it leaves out. */
const { quote, offer } = defineProps<{ quote: Quote; offer: Extract<Offer, { kind: 'priced' }> }>();

const pays = computed(() => {
  const cover = quote.cover;
  if (!cover) return undefined;
  const worth = Number(cover.pays_back.amount) > Number(cover.premium.amount);
  return {
    worth,
    says: `${cover.bought ? 'Cover for it costs' : 'More cover would cost'} ${money(cover.premium)}, and pays back ${money(cover.pays_back)} on average, ${money(cover.pays_at_worst)} at worst.`,
  };
});
</script>

<template>
  <p class="cover figure" data-test="cover">
    <template v-if="offer.excluded.length > 0">
      <strong>Not covered at all:</strong> {{ offer.excluded.join('; ') }}.
    </template>
    <template v-else-if="pays">
      {{ pays.says }}
      <strong>{{
        pays.worth ? 'On average it pays.' : 'On average it does not pay: it buys a quiet night.'
      }}</strong>
    </template>
    <template v-else-if="quote.uncovered">
      It covers {{ money(offer.covered) }} and sells no more: {{ money(quote.uncovered) }} of the value is
      your own risk.
    </template>
    <template v-else>It covers {{ money(offer.covered) }}, which is in the price.</template>
  </p>
</template>

<style scoped>
.cover {
  margin: 8px 0;
}
</style>
