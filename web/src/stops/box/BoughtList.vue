<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import { count, counted, oneIn, signed } from '@/words/grammar';
import { useShipment } from '@/shipment/useShipment';
import { useWays } from '@/shipment/useWays';
import { useUnits } from '@/units/useUnits';

/** The cartons and mailers of the stores that could take the place of a box that is cut. */
const { choose } = useShipment();
const { bought } = useWays(() => 'box');
const units = useUnits();

const fit = computed(() => bought.value?.filter(({ refused }) => !refused) ?? []);
const others = computed(() => bought.value?.filter(({ refused }) => refused) ?? []);
</script>

<template>
  <section v-if="bought && bought.length > 0" class="bought no-print" aria-label="Bought boxes">
    <details :open="fit.some(({ chosen }) => chosen)">
      <summary>
        {{
          fit.length > 0
            ? `Or bought: ${count(fit.length)} of your cartons and mailers fit`
            : 'No carton or mailer among the materials takes it'
        }}
      </summary>
      <table v-if="fit.length > 0" class="figure">
        <thead>
          <tr>
            <th scope="col">what</th>
            <th scope="col">outside</th>
            <th scope="col">work</th>
            <th scope="col">arrive damaged</th>
            <th scope="col">to send</th>
            <td></td>
          </tr>
        </thead>
        <tbody>
          <tr v-for="offer in fit" :key="offer.material" :data-bought="offer.material">
            <th scope="row">
              {{ offer.name
              }}{{ offer.parts === 2 && offer.material.includes('mailer') ? ', two of them' : '' }}
            </th>
            <td v-if="offer.outside">
              {{ units.size(offer.outside.across_mm, offer.outside.up_mm, offer.outside.through_mm) }}
            </td>
            <td>{{ offer.minutes?.toFixed(0) }}&nbsp;min</td>
            <td :class="{ worse: !offer.keeps }">
              {{ offer.change ? oneIn(offer.change.odds_after.about) : '' }}
            </td>
            <td data-sum="difference">
              {{
                offer.cost && !offer.chosen
                  ? `${signed(Number(offer.cost.amount), 2)} ${offer.cost.currency}`
                  : ''
              }}
            </td>
            <td>
              <span v-if="offer.chosen" class="soft">taken</span>
              <BButton v-else size="sm" variant="outline-secondary" @click="choose(offer.choices)">
                Take it
              </BButton>
            </td>
          </tr>
        </tbody>
      </table>
      <details v-if="others.length > 0" class="others">
        <summary class="soft">Why {{ counted(others.length, 'other') }} would not</summary>
        <ul>
          <li v-for="offer in others" :key="offer.material">{{ offer.refused }}</li>
        </ul>
      </details>
    </details>
  </section>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.bought {
  margin-bottom: 4px;
}
summary {
  min-height: 44px;
  padding-top: 10px;
  font-weight: 600;
  cursor: pointer;
}
.others summary {
  font-weight: 400;
}
table {
  width: 100%;
  margin: 4px 0 8px;
  font-size: var(--type-small);
}
th,
td {
  padding: 4px 8px 4px 0;
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
.worse {
  color: var(--rowan);
}
@include at.phone {
  thead {
    display: none;
  }
  tr {
    display: block;
    padding: 6px 0;
    border-bottom: 1px solid var(--sedge);
  }
  tbody th,
  tbody td {
    display: inline-block;
    padding: 0 10px 0 0;
    border: 0;
  }
  tbody th {
    display: block;
  }
}
</style>
