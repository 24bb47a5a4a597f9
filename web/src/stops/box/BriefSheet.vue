<script setup lang="ts">
import { computed } from 'vue';

import type { Finding } from '@/api/types';
import { useStudio } from '@/api/useStudio';
import { useCountries } from '@/countries/useCountries';
import { useNextStep } from '@/frame/foot';
import { worded } from '@/words/grammar';
import { layerWords } from '@/words/layers';
import { CONDITIONS, CONSTRUCTIONS, MEDIA, PAINTS } from '@/words/vocabulary';
import { layersTo } from '@/shipment/layers';
import { useShipment } from '@/shipment/useShipment';
import { dayAndYear, kilograms } from '@/units/show';
import { useUnits } from '@/units/useUnits';

/** What a crating service has to know of a piece, to be printed or sent: sizes, weight, what is around it, what it needs. */
const { id, draft, plan, summary, money } = useShipment();
const { studio } = useStudio();
const { onPaper: units } = useUnits();
useNextStep(() => ({
  verb: { text: 'Print the brief', press: () => window.print(), disabled: !plan.value },
  other: { text: 'Back to Box', to: { name: 'box', params: { id } } },
}));

const weighed = computed(() => {
  const { mass_g = 0, plus_minus_g = 0 } = plan.value?.piece_weight ?? {};
  return `${kilograms(mass_g)} ± ${kilograms(plus_minus_g)}${draft.piece.weight ? ', weighed' : ', estimated'}`;
});
const made = computed(() => {
  const { construction, medium, paint, condition } = draft.piece;
  return [
    worded(CONSTRUCTIONS, construction),
    worded(MEDIA, medium),
    paint === 'thin' ? '' : `paint: ${worded(PAINTS, paint)}`,
    condition === 'sound' ? '' : worded(CONDITIONS, condition),
  ]
    .filter(Boolean)
    .join(', ');
});
/** What is around it when it is handed over: everything but the box and what fills it. */
const around = computed(() => (plan.value ? layersTo(plan.value, 'outer_boards') : []));
const wrapped = computed(() => around.value.at(-1)?.envelope);
/** What is said of the piece itself, and not of how it is packed or sent here. */
const ofThePiece = ({ about, level, code }: Finding) =>
  about === 'piece' && level !== 'note' && code !== 'hand-over';
const needs = computed(() => {
  const fragility = plan.value?.survival.fragility;
  const limit = fragility?.limit_g;
  return [
    limit
      ? `takes a shock of ${limit.toFixed(0)} G on its face, and no more`
      : 'is bent or crushed before a shock harms it',
    'nothing presses on the face; it travels upright, its top up',
    ...(plan.value?.findings.filter(ofThePiece).map(({ says }) => says) ?? []),
  ];
});
const { nameOf } = useCountries();
const buyer = computed(() => {
  const { name, company, street, neighbourhood, postcode, town, region, country } = draft.buyer;
  const place = [postcode, town].filter(Boolean).join(' ');
  return [name, company, street, neighbourhood, place, region, country && nameOf(country)]
    .filter(Boolean)
    .join(', ');
});
const sized = (one?: { across_mm: number; up_mm: number; through_mm: number }) =>
  one ? units.size(one.across_mm, one.up_mm, one.through_mm) : '';
</script>

<template>
  <article v-if="plan && summary" class="brief">
    <h2>Brief for a crating service</h2>
    <p class="soft">{{ studio?.name }}, {{ studio?.town }}, {{ studio ? dayAndYear(studio.today) : '' }}</p>
    <dl class="figure">
      <dt>the piece</dt>
      <dd>{{ draft.title }}: {{ made }}</dd>
      <dt>its size</dt>
      <dd>
        {{ units.size(plan.size.width_mm, plan.size.height_mm, plan.size.depth_mm) }}, width × height × depth
      </dd>
      <dt>its weight</dt>
      <dd>{{ weighed }}</dd>
      <dt>worth</dt>
      <dd>{{ draft.value ? `${draft.value} ${money}` : 'not told' }}</dd>
      <dt>wrapped</dt>
      <dd>
        {{ sized(wrapped) }}
        <ul>
          <li v-for="layer in around" :key="layer.slot">{{ layerWords(layer, units).name }}</li>
        </ul>
      </dd>
      <dt>boxed here</dt>
      <dd>it would be {{ sized(summary.outside) }} and {{ kilograms(summary.weight.mass_g) }}</dd>
      <dt>it needs</dt>
      <dd>
        <ul>
          <li v-for="need in needs" :key="need">{{ need }}</li>
        </ul>
      </dd>
      <dt>it goes to</dt>
      <dd>
        {{ buyer || 'not told' }}{{ draft.promised ? `, promised for ${dayAndYear(draft.promised)}` : '' }}
      </dd>
    </dl>
    <h3>Requirements</h3>
    <ul class="lines">
      <li>price, with collection</li>
      <li>collected on, delivered on</li>
      <li>covered for, excess</li>
      <li>this holds until</li>
    </ul>
  </article>
  <p v-else class="soft">
    The brief follows from the measure.
    <RouterLink :to="{ name: 'measure', params: { id } }">Measure the piece</RouterLink>
  </p>
</template>

<style scoped>
.brief {
  max-width: 760px;
}
h2 {
  margin: 0;
  font-size: var(--type-lead);
}
h3 {
  margin: 16px 0 0;
  font-size: var(--type-strong);
}
dl {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: 8px 16px;
}
dt {
  color: var(--peat-soft);
  font-weight: 400;
}
dd {
  margin: 0;
}
ul {
  margin: 0;
  padding-left: 18px;
}
.lines {
  padding: 0;
  list-style: none;
}
.lines li {
  padding: 14px 0 2px;
  border-bottom: 1px solid var(--peat-soft);
}
</style>
