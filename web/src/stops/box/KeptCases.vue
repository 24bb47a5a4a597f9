<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import SumOf from '@/parts/SumOf.vue';
import { useShipment } from '@/shipment/useShipment';
import { useUnits } from '@/units/useUnits';
import { counted, oneIn, signed } from '@/words/grammar';

import { usePile } from './usePile';

/** Travel cases that were built before and stand in the studio: those that take the piece, the best first. */
const { choose } = useShipment();
const { cases } = usePile();
const units = useUnits();

const good = computed(() => cases.value.filter(({ refused }) => !refused));
const others = computed(() => cases.value.filter(({ refused }) => refused));
const chosen = computed(() => cases.value.some((fit) => fit.chosen));
const says = computed(() =>
  good.value.length > 0
    ? `Or use a travel case you have: ${counted(good.value.length, 'case')} ${good.value.length === 1 ? 'fits' : 'fit'}`
    : 'Or use a travel case you have: none fits',
);
</script>

<template>
  <section v-if="cases.length > 0" class="cases no-print" aria-label="A travel case you have">
    <details :open="chosen">
      <summary>{{ says }}</summary>
      <table v-if="good.length > 0" class="figure">
        <thead>
          <tr>
            <th scope="col">on the shelf</th>
            <th scope="col">between its linings</th>
            <th scope="col">outside</th>
            <th scope="col">work</th>
            <th scope="col">carrier</th>
            <th scope="col">arrive damaged</th>
            <th scope="col">to send</th>
            <td></td>
          </tr>
        </thead>
        <tbody>
          <tr v-for="fit in good" :key="fit.item" :data-case="fit.name">
            <th scope="row">
              {{ fit.name || 'a case' }}
              <span class="soft">{{ fit.place }}</span>
            </th>
            <td>{{ units.size(fit.case.length_mm, fit.case.width_mm, fit.case.depth_mm) }}</td>
            <td v-if="fit.outside">
              {{ units.size(fit.outside.across_mm, fit.outside.up_mm, fit.outside.through_mm) }}
            </td>
            <td>{{ fit.minutes?.toFixed(0) }}&nbsp;min</td>
            <td><SumOf v-if="fit.carriage" of="to_carrier_then" :sum="fit.carriage" /></td>
            <td :class="{ worse: !fit.keeps }">{{ fit.change ? oneIn(fit.change.odds_after.about) : '' }}</td>
            <td data-sum="difference">
              {{
                fit.cost && !fit.chosen ? `${signed(Number(fit.cost.amount), 2)} ${fit.cost.currency}` : ''
              }}
            </td>
            <td>
              <span v-if="fit.chosen" class="soft">taken</span>
              <BButton
                v-else
                size="sm"
                variant="outline-secondary"
                :aria-label="`Take it: ${fit.name || 'a case'}`"
                @click="choose(fit.choices)"
                >Take it</BButton
              >
            </td>
          </tr>
        </tbody>
      </table>
      <ul v-if="others.length > 0" class="soft">
        <li v-for="fit in others" :key="fit.item">{{ fit.name || 'A case' }}: {{ fit.refused }}</li>
      </ul>
    </details>
  </section>
</template>

<style scoped lang="scss">
@use '@/styles/at';

summary {
  min-height: 44px;
  padding-top: 10px;
  font-weight: 600;
  cursor: pointer;
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
th .soft {
  display: block;
  font-weight: 400;
}
ul {
  max-width: 640px;
  margin: 0 0 8px;
  padding-left: 18px;
}
.worse {
  color: var(--amber-moss);
  font-weight: 600;
}
@include at.phone {
  table,
  tbody,
  tr,
  th,
  td {
    display: block;
    border: 0;
    padding: 2px 0;
  }
  thead {
    display: none;
  }
  tr {
    padding: 8px 0;
    border-bottom: 1px solid var(--sedge);
  }
}
</style>
