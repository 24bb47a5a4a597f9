<script setup lang="ts">
import type { FitWay } from '@/api/types';
import { useStudio } from '@/api/useStudio';
import { useNextStep } from '@/frame/foot';
import { useShipment } from '@/shipment/useShipment';
import { OPENS } from '@/words/vocabulary';
import { manners } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import { usePile } from './usePile';

/** A card to take to a shop or a neighbour: inside sizes of cartons that would do. */
const { id, draft } = useShipment();
const { wanted } = usePile();
const { studio } = useStudio();
const { house, onPaper: units } = useUnits();
/** A binary hair over a part of an inch is that part. */
const DUST = 1e-9;
useNextStep(() => ({
  verb: { text: 'Print the card', press: () => window.print(), disabled: !wanted.value },
  other: { text: 'Back to Box', to: { name: 'box', params: { id } } },
}));

const WAYS: Record<FitWay, string> = {
  as_is: 'goes as it is',
  filled: 'goes, with fill',
  cut_down: 'is cut down in depth',
  extended: 'gets a sleeve',
  telescoped: 'is cut round and pushed together',
  joined: 'comes twice: two alike, pushed into each other',
};
type Range = unknown[];
function told(range: Range): string {
  // A carton that measures what is written here does: never less than what goes in, never more than what is filled.
  const [least, most] = range as [number, number | null];
  // To the millimetre, or to the part of an inch that the studio's ruler has.
  const step = house.value === 'in' ? 25.4 / manners.fraction : 1;
  const from = Math.ceil(least / step - DUST) * step;
  const to = most === null ? null : Math.floor(most / step + DUST) * step;
  if (to === null) return `${units.length(from)} or more`;
  return `${units.number(from)} to ${units.length(to)}`;
}
</script>

<template>
  <article class="wanted">
    <div class="heading-row">
      <h2>Wanted: a carton for “{{ draft.title || 'Untitled' }}”</h2>
    </div>
    <p v-if="!wanted" class="soft">No carton size: the piece isn’t boxed, or isn’t measured yet.</p>
    <template v-else>
      <p>
        Contents:
        <strong class="figure">{{ units.size(...(wanted.inside_mm as [number, number, number])) }}</strong>,
        its room included. Measure inside: the two sides of the opening, then how deep.
      </p>
      <table class="figure">
        <thead>
          <tr>
            <th scope="col">a carton that</th>
            <th scope="col">long, inside the opening</th>
            <th scope="col">wide</th>
            <th scope="col">deep</th>
          </tr>
        </thead>
        <tbody>
          <template v-for="side in OPENS" :key="side.value">
            <tr class="opens">
              <th scope="rowgroup" colspan="4">opens {{ side.text.toLowerCase() }}, and</th>
            </tr>
            <tr
              v-for="way in wanted.ways.filter(({ opens }) => opens === side.value)"
              :key="way.way"
              :data-way="way.way"
              :data-opens="side.value"
            >
              <th scope="row">{{ WAYS[way.way] }}</th>
              <td data-is="long">{{ told(way.length_mm) }}</td>
              <td data-is="wide">{{ told(way.width_mm) }}</td>
              <td data-is="deep">{{ told(way.depth_mm) }}</td>
            </tr>
          </template>
        </tbody>
      </table>
      <ul>
        <li>
          It is slotted: four flaps above, four below. Cartons of mirrors and monitors open on a narrow side.
        </li>
        <li>
          Board: at least as stiff as {{ wanted.board }}, about {{ units.length(wanted.caliper_mm) }} thick.
        </li>
        <li>No crushed corner, never wet, no smell. Print can be turned inside.</li>
        <li>Ask the owner before you take it.</li>
      </ul>
      <p class="soft">{{ studio?.name }}</p>
    </template>
  </article>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.wanted {
  max-width: 820px;
}
h2 {
  margin: 4px 0;
  font-size: var(--type-lead);
}
table {
  width: 100%;
  font-size: var(--type-strong);
}
th,
td {
  padding: 8px 12px 8px 0;
  border-bottom: 1px solid var(--sedge);
  font-weight: 400;
  text-align: left;
}
thead th {
  color: var(--peat-soft);
}
tbody th {
  font-weight: 600;
}
.opens th {
  padding-top: 14px;
  color: var(--peat-soft);
  font-weight: 400;
}
@include at.phone {
  thead {
    display: none;
  }
  tr,
  th,
  td {
    display: block;
    border: 0;
    padding: 2px 0;
  }
  tr {
    padding: 8px 0;
    border-bottom: 1px solid var(--sedge);
  }
  td::before {
    content: attr(data-is) ' ';
    color: var(--peat-soft);
  }
}
</style>
