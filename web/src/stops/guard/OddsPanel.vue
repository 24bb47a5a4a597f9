<script setup lang="ts">
import { computed } from 'vue';

import type { Plan } from '@/api/types';
import ParcelField from '@/drawing/ParcelField.vue';
import { capital, oneIn } from '@/words/grammar';
import SumOf from '@/parts/SumOf.vue';
import { grouped } from '@/units/show';

import HazardBars from './HazardBars.vue';

/** How likely the plan is to arrive damaged, what that is made of, and what it is compared with. */
const { plan } = defineProps<{ plan: Plan }>();

const odds = computed(() => plan.odds);
const record = computed(() =>
  odds.value.recorded > 0
    ? `with your own record of ${grouped(odds.value.recorded)} sent`
    : 'by trade judgement: no parcels of your own are written down yet',
);
const way = computed(
  () =>
    `${odds.value.pieces > 1 ? `${odds.value.pieces} pieces, first of all ` : ''}${odds.value.pieces > 1 ? odds.value.class_name : capital(odds.value.class_name)}, ${odds.value.on_the_way}${odds.value.wet ? ', a wet way' : ''}`,
);
const begun = computed(() => {
  const began = plan.began;
  if (!began) return '';
  const line = began.line == null ? '' : `line ${began.line} of From whom to begin, `;
  return `Begun from ${began.preset} (${line}${began.says}).`;
});
</script>

<template>
  <section class="odds" aria-label="Odds" data-test="odds">
    <h2>About {{ oneIn(odds.one_in.about) }}</h2>
    <p class="lead">such parcels arrive damaged</p>
    <p class="soft figure">
      {{ way }}: {{ oneIn(odds.one_in.from) }} to {{ oneIn(odds.one_in.to) }}, {{ record }}.
    </p>
    <ParcelField :one-in="odds.one_in.about" />
    <details>
      <summary>Hazards</summary>
      <HazardBars :hazards="odds.hazards" />
    </details>
    <p class="soft small">
      Compared with the same piece in the Standard pack that comes with Hummock; it promises nothing.
      {{ begun }}
      <template v-if="odds.expected_loss">
        <template v-if="odds.harm">
          Arriving damaged would cost <SumOf of="harm" :sum="odds.harm" /> on average.
        </template>
        Expected damage: <SumOf of="expected_loss" :sum="odds.expected_loss" /> a journey on average, beyond
        what cover pays.
      </template>
    </p>
  </section>
</template>

<style scoped>
summary {
  min-height: 44px;
  padding-top: 10px;
  color: var(--water);
  cursor: pointer;
  font-weight: 600;
}
h2 {
  margin: 0;
  font-size: var(--type-title);
  line-height: 1.1;
}
.lead {
  margin: 0;
  font-weight: 600;
}
p {
  margin: 2px 0 8px;
}
.small {
  margin: 8px 0 0;
  font-size: var(--type-small);
}
</style>
