<script setup lang="ts">
import { computed } from 'vue';

import type { Offer, Quote } from '@/api/types';
import SumOf from '@/parts/SumOf.vue';

/** Whether cover is worth its premium, in one sentence; and what it leaves out. */
const { quote, offer } = defineProps<{ quote: Quote; offer: Extract<Offer, { kind: 'priced' }> }>();

const pays = computed(() => {
  const cover = quote.cover;
  if (!cover) return undefined;
  const worth = Number(cover.pays_back.amount) > Number(cover.premium.amount);
  return {
    worth,
    cover,
  };
});
</script>

<template>
  <p class="cover figure" data-test="cover">
    <template v-if="offer.excluded.length > 0">
      <strong>Not covered at all:</strong> {{ offer.excluded.join('; ') }}.
    </template>
    <template v-else-if="pays">
      {{ pays.cover.bought ? 'Cover for it costs' : 'More cover would cost' }}
      <SumOf of="cover" :sum="pays.cover.premium" />, and pays back
      <SumOf of="cover_pays_back" :sum="pays.cover.pays_back" /> on average,
      <SumOf of="cover_pays_back" :sum="pays.cover.pays_at_worst" /> at worst.
      <strong>{{
        pays.worth ? 'On average it pays.' : 'On average it does not pay: it buys a quiet night.'
      }}</strong>
    </template>
    <template v-else-if="quote.uncovered">
      It covers <SumOf of="covered" :sum="offer.covered" /> and sells no more:
      <SumOf of="not_covered" :sum="quote.uncovered" /> of the value is your own risk.
    </template>
    <template v-else>It covers <SumOf of="covered" :sum="offer.covered" />, which is in the price.</template>
  </p>
</template>

<style scoped>
.cover {
  margin: 8px 0;
}
</style>
