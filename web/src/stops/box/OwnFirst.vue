<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import type { Choices, Money } from '@/api/types';
import SumOf from '@/parts/SumOf.vue';
import { useShipment } from '@/shipment/useShipment';
import { useWays } from '@/shipment/useWays';
import { useUnits } from '@/units/useUnits';
import { oneIn } from '@/words/grammar';

import { named, usePile } from './usePile';

/** A saved or a bought carton that does as well as the box that would be made, and costs less to send. */
const { choose } = useShipment();
const { bought } = useWays(() => 'box');
const { fits } = usePile();
const units = useUnits();

interface Own {
  key: string;
  /** How it is come by. */
  lead: string;
  name: string;
  where: string;
  outside: string;
  odds: string;
  saves: Money;
  choices: Partial<Choices>;
}
/** So many are named; the rest stands with its own kind below. */
const MOST = 2;
const cheaper = (cost?: Money | null): cost is Money => cost != null && Number(cost.amount) < 0;
const saved = (cost: Money): Money => ({ ...cost, amount: cost.amount.replace('-', '') });

const own = computed((): Own[] => {
  const found = [
    ...(fits.value ?? []).map((fit) => ({
      ...fit,
      key: `pile/${fit.item}/${fit.second?.item ?? ''}`,
      lead: fit.second ? 'Two saved cartons fit' : 'A saved carton fits',
      name: named(fit),
      where: fit.place,
    })),
    ...(bought.value ?? []).map((offer) => ({
      ...offer,
      key: `bought/${offer.material}`,
      lead: 'A bought carton fits',
      where: '',
    })),
  ];
  return found
    .flatMap(({ key, lead, name, where, outside, change, cost, keeps, chosen, refused, choices }) =>
      keeps && !chosen && !refused && outside && change && cheaper(cost)
        ? [
            {
              key,
              lead,
              name,
              where,
              outside: units.size(outside.across_mm, outside.up_mm, outside.through_mm),
              odds: oneIn(change.odds_after.about),
              saves: saved(cost),
              choices,
            },
          ]
        : [],
    )
    .sort((one, other) => Number(other.saves.amount) - Number(one.saves.amount))
    .slice(0, MOST);
});
</script>

<template>
  <section v-if="own.length > 0" class="own no-print" aria-label="Saved cartons" data-test="own-first">
    <p v-for="one in own" :key="one.key" :data-own="one.key">
      <span>
        <strong>{{ one.lead }}: {{ one.name }}</strong
        >{{ one.where ? `, ${one.where}` : '' }}.
        <span class="figure"
          >{{ one.outside }} outside, about {{ one.odds }} arrive damaged. It saves
          <SumOf of="difference" :sum="one.saves" /> to send.</span
        >
      </span>
      <BButton @click="choose(one.choices)">Take it</BButton>
    </p>
  </section>
</template>

<style scoped>
.own {
  margin: 0 0 12px;
  border-left: 4px solid var(--moss);
  background: var(--paper);
}
p {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  justify-content: space-between;
  margin: 0;
  padding: 8px 12px;
}
</style>
