<script setup lang="ts">
import { computed } from 'vue';

import type { Change } from '@/api/types';
import { oneIn, signed } from '@/words/grammar';
import * as show from '@/units/show';
import { useUnits } from '@/units/useUnits';

/** What would change, in a few figures; better in moss, worse in amber. */
const { change } = defineProps<{ change: Change }>();
const units = useUnits();

const LEAST_MM = 0.5;
const LEAST_G = 0.5;
const LEAST_SHARE = 0.005;

interface Figure {
  says: string;
  better: boolean;
  sum?: 'difference';
}

const figures = computed(() => {
  const found: Figure[] = [];
  const add = (by: number, least: number, says: string, better: boolean) => {
    if (Math.abs(by) >= least) found.push({ says, better });
  };
  const { across_mm, up_mm, through_mm, mass_g, minutes, plastic_g, stops, minds, odds_times } = change;
  const odds = `${oneIn(change.odds_before.about)} → ${oneIn(change.odds_after.about)}`;
  add(odds_times - 1, LEAST_SHARE, odds, odds_times < 1);
  add(through_mm, LEAST_MM, `${units.signed(through_mm)} through`, through_mm < 0);
  add(across_mm, LEAST_MM, `${units.signed(across_mm)} across`, across_mm < 0);
  add(up_mm, LEAST_MM, `${units.signed(up_mm)} up`, up_mm < 0);
  add(mass_g, LEAST_G, show.signedGrams(mass_g), mass_g < 0);
  const cost = Number(change.cost.amount);
  // A material without a price yet says nothing of money.
  if (change.priced && Math.abs(cost) >= LEAST_SHARE)
    found.push({
      says: `${signed(cost, 2)} ${change.cost.currency} of materials`,
      better: cost < 0,
      sum: 'difference',
    });
  add(minutes, LEAST_MM, `${signed(minutes)} min`, minutes < 0);
  add(plastic_g, LEAST_MM, `${show.signedGrams(plastic_g)} plastic`, plastic_g < 0);
  add(stops, 1, `${signed(stops)} Stop`, stops < 0);
  add(minds, 1, `${signed(minds)} worth a look`, minds < 0);
  return found;
});
</script>

<template>
  <span class="figures figure">
    <span v-for="{ says, better, sum } in figures" :key="says" :class="{ better }" :data-sum="sum">{{
      says
    }}</span>
    <span v-if="figures.length === 0" class="better">nothing changes</span>
  </span>
</template>

<style scoped>
.figures {
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  color: var(--amber-moss);
  font-size: var(--type-small);
  line-height: 1.35;
}
.better {
  color: var(--moss);
}
</style>
