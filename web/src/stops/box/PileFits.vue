<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import type { FitWay } from '@/api/types';
import ClosedBox from '@/drawing/ClosedBox.vue';
import CutDownDrawing from '@/drawing/CutDownDrawing.vue';
import { counted, oneIn, signed } from '@/words/grammar';
import SumOf from '@/parts/SumOf.vue';
import { OPENS } from '@/words/vocabulary';
import { useShipment } from '@/shipment/useShipment';
import { useUnits } from '@/units/useUnits';

import { named, usePile } from './usePile';

/** The cartons of the pile that would do for the shipment, the best first. */
const { id, choose } = useShipment();
const { fits, wanted } = usePile();
const units = useUnits();

const WAYS: Record<FitWay, string> = {
  as_is: 'as it is',
  filled: 'filled',
  cut_down: 'cut down',
  extended: 'with a sleeve',
  telescoped: 'cut round, and pushed together',
  joined: 'two, pushed into each other',
};
const opens = (side: string | undefined) =>
  OPENS.find(({ value }) => value === side)?.text.toLowerCase() ?? '';
const good = computed(() => fits.value?.filter(({ refused }) => !refused) ?? []);
const others = computed(() => fits.value?.filter(({ refused }) => refused) ?? []);
const shown = computed(() => good.value.find(({ chosen }) => chosen) ?? good.value[0]);
</script>

<template>
  <div v-if="fits" data-test="pile">
    <p v-if="good.length === 0">
      {{ fits.length === 0 ? 'No saved cartons.' : 'No saved carton fits.' }}
      <RouterLink v-if="wanted" class="btn btn-sm" :to="`/shipments/${id}/wanted`"
        >Carton sizes to look for</RouterLink
      >
    </p>
    <template v-else>
      <table class="figure">
        <thead>
          <tr>
            <th scope="col">from the pile</th>
            <th scope="col">how</th>
            <th scope="col">outside</th>
            <th scope="col">work</th>
            <th scope="col">carrier</th>
            <th scope="col">arrive damaged</th>
            <th scope="col">to send</th>
            <td></td>
          </tr>
        </thead>
        <tbody>
          <tr v-for="fit in good" :key="`${fit.item}/${fit.second?.item ?? ''}`" :data-pile="named(fit)">
            <th scope="row">
              <ClosedBox
                v-if="fit.outside"
                class="stamp"
                :closing="`opens_${fit.carton.opens ?? 'face'}`"
                :sides="[fit.outside.across_mm, fit.outside.up_mm, fit.outside.through_mm]"
              />
              {{ named(fit) }}
              <span class="soft">{{ fit.place }}</span>
            </th>
            <td>
              {{ fit.way ? WAYS[fit.way] : ''
              }}{{ fit.carton.markings === 'printed' ? ', turned inside out' : '' }}
              <span v-if="fit.carton.opens !== 'face'" class="soft">opens {{ opens(fit.carton.opens) }}</span>
              <span v-if="fit.carton.markings === 'labels'" class="soft">cover its labels</span>
              <span v-if="fit.carton.carrier" class="soft">only with {{ fit.carton.carrier }}</span>
            </td>
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
                :aria-label="`Take ${fit.second ? 'them' : 'it'}: ${named(fit)}`"
                @click="choose(fit.choices)"
                >{{ fit.second ? 'Take both' : 'Take it' }}</BButton
              >
            </td>
          </tr>
        </tbody>
      </table>
      <figure v-if="shown?.made && (shown.made.cut || shown.made.shorter || shown.made.second)">
        <figcaption class="soft">
          {{ named(shown) }}, laid open: cut the whole lines, score the broken one.
        </figcaption>
        <CutDownDrawing :box="shown.made" />
        <CutDownDrawing v-if="shown.made.second" :box="shown.made" which="second" />
      </figure>
      <RouterLink v-if="wanted" class="btn btn-sm" :to="`/shipments/${id}/wanted`"
        >Carton sizes to look for</RouterLink
      >
    </template>
    <details v-if="others.length > 0" class="others">
      <summary class="soft">Why {{ counted(others.length, 'other') }} would not</summary>
      <ul>
        <li v-for="fit in others" :key="fit.item">{{ fit.name || 'A carton' }}: {{ fit.refused }}</li>
      </ul>
    </details>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

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
.soft {
  display: block;
  font-weight: 400;
}
.worse {
  color: var(--amber-moss);
  font-weight: 600;
}
figure {
  margin: 8px 0;
}
.stamp {
  width: 96px;
  height: 56px;
}
.others summary {
  min-height: 44px;
  padding-top: 10px;
  cursor: pointer;
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
