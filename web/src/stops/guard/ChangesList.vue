<script setup lang="ts">
import { computed } from 'vue';

import type { Choices } from '@/api/types';
import { useWays } from '@/shipment/useWays';
import { useShipment } from '@/shipment/useShipment';

import SumOf from '@/parts/SumOf.vue';
import { oneIn } from '@/words/grammar';

import ChangeRow from './ChangeRow.vue';

/** What would protect the plan more, and what could be left out, each with what it costs and is worth. */
const { id, draft, choose, takeWay } = useShipment();
const { changes, away } = useWays();

/** The choices of the change that is pointed at. */
const looked = defineModel<Partial<Choices> | undefined>('looked');

const SHOWN = 6;
const currency = computed(() => (changes.value?.more[0] ?? changes.value?.less[0])?.cost.currency ?? '');
</script>

<template>
  <section id="changes" class="changes no-print" aria-label="More protection, or less">
    <p v-if="away" class="soft">Changes can’t be calculated just now.</p>
    <p v-else-if="!changes" class="soft">Working out changes</p>
    <template v-else>
      <p v-if="changes.otherwise" class="otherwise">{{ changes.otherwise }}</p>
      <p v-if="changes.cheapest" class="otherwise" data-test="cheapest">
        The cheapest way that this studio accepts:
        <strong>{{ changes.cheapest.parts.join(', ') || 'packed as it is' }}</strong>, with
        {{ changes.cheapest.service_name }} of {{ changes.cheapest.carrier }},
        <SumOf of="total_then" :sum="changes.cheapest.cost" /> in total,
        {{ oneIn(changes.cheapest.odds.about) }}.
        <button type="button" class="btn btn-outline-secondary btn-sm" @click="takeWay(changes.cheapest)">
          Apply the cheapest way
        </button>
      </p>
      <div class="heading-row">
        <h3>More protection</h3>
        <span class="soft">the odds then, and what it costs more to send, {{ currency }}</span>
      </div>
      <ol v-if="changes.more.length > 0" data-test="more">
        <ChangeRow
          v-for="offered in changes.more.slice(0, SHOWN)"
          :key="offered.label"
          :offered="offered"
          @press="choose(offered.choices)"
          @look="(at) => (looked = at ? offered.choices : undefined)"
        />
      </ol>
      <p v-else class="soft">Nothing on the shelf makes damage noticeably less likely.</p>
      <template v-if="changes.less.length > 0">
        <div class="heading-row"><h3>Less</h3></div>
        <ol data-test="less">
          <ChangeRow
            v-for="offered in changes.less.slice(0, SHOWN)"
            :key="offered.label"
            :offered="offered"
            @press="choose(offered.choices)"
            @look="(at) => (looked = at ? offered.choices : undefined)"
          />
        </ol>
      </template>
      <p v-if="draft.buyer.country" class="all">
        <RouterLink class="alone" :to="`/shipments/${id}/ways`"
          >Compare every way to pack and send it</RouterLink
        >
      </p>
    </template>
  </section>
</template>

<style scoped>
h3 {
  margin: 0;
  font-size: var(--type-strong);
}
.heading-row {
  margin: 14px 0 0;
}
.heading-row .soft {
  font-size: var(--type-small);
}
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}
.all {
  margin: 12px 0 0;
}
.otherwise {
  margin: 12px 0 0;
  padding-left: 10px;
  border-left: 4px solid var(--amber-moss);
}
</style>
