<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';

import type { Way } from '@/api/types';
import { useNextStep } from '@/frame/foot';
import { counted, oneIn } from '@/words/grammar';
import ChangeFigures from '@/parts/ChangeFigures.vue';
import SumOf from '@/parts/SumOf.vue';
import { vSay } from '@/said/say';
import { useShipment } from '@/shipment/useShipment';
import { grams } from '@/units/show';

import { FRAME, picture, wayKey, wayWords } from './picture';
import { useFront } from './useFront';

const { id, version, takeWay } = useShipment();
const { front, looking, away, look, stop } = useFront(id, version);
const router = useRouter();
const opened = shallowRef<Way>();
const picked = computed(() => opened.value && wayKey(opened.value));
const all = ref(false);

const drawn = computed(() => front.value && picture(front.value));
/** What is looked at stays, although something found meanwhile may beat it. */
const shown = computed(() => {
  const found = front.value?.ways ?? [];
  const listed = found.filter((way) => all.value || way.leads || way.is_now || wayKey(way) === picked.value);
  const gone = opened.value && !listed.some((way) => wayKey(way) === picked.value);
  return gone && opened.value ? [...listed, { ...opened.value, unbeaten: false }] : listed;
});
const more = computed(() => Math.max(0, (front.value?.ways.length ?? 0) - shown.value.length));
const count = new Intl.NumberFormat('en-GB');
const currency = computed(() => front.value?.ways[0]?.cost.currency ?? '');

function pick(way: Way): void {
  opened.value = wayKey(way) === picked.value ? undefined : way;
}
async function take(way: Way): Promise<void> {
  takeWay(way);
  await router.push({ name: 'guard', params: { id } });
}
useNextStep(() => {
  const way = opened.value;
  return {
    verb:
      way && !way.is_now
        ? { text: 'Take this way', press: () => take(way) }
        : { text: 'Back to Guard', to: { name: 'guard', params: { id } } },
  };
});
</script>

<template>
  <div class="ways">
    <section aria-label="Where they lie">
      <div class="heading-row">
        <h2>Every way to send it</h2>
        <span v-if="front && front.looked_at > 0" v-say class="soft figure" data-test="looked-at">
          {{ counted(front.ways.filter((way) => way.unbeaten).length, 'way') }} that nothing beats, of
          {{ count.format(front.looked_at) }} looked at{{ looking ? ' so far' : '' }}
        </span>
      </div>
      <p v-if="away" v-say class="soft">The server does not answer. Trying again.</p>
      <p v-else-if="!front" class="soft">Looking for ways</p>
      <p v-else-if="front.ways.length === 0" class="soft">
        Ways need the measured piece, its destination and a service that takes it.
        <RouterLink :to="{ name: 'measure', params: { id } }">Measure</RouterLink>
      </p>
      <svg
        v-if="drawn && front && front.ways.length > 0"
        :viewBox="`0 0 ${FRAME.width} ${FRAME.height}`"
        class="panel figure"
        role="img"
        aria-label="Each dot is a way: further up is safer, further left is cheaper. The list beside it names those that nothing beats."
      >
        <g v-for="line in drawn.odds" :key="line.says">
          <line :x1="FRAME.left" :x2="FRAME.width - FRAME.right" :y1="line.y" :y2="line.y" class="grid" />
          <text :x="FRAME.left - 6" :y="line.y + 5" text-anchor="end">{{ line.says }}</text>
        </g>
        <text
          v-for="tick in drawn.costs"
          :key="tick.x"
          :x="tick.x"
          :y="FRAME.height - FRAME.bottom + 20"
          text-anchor="middle"
        >
          {{ tick.says }}
        </text>
        <text :x="FRAME.width - FRAME.right" :y="FRAME.height - 6" text-anchor="end">
          total with expected damage, {{ currency }}
        </text>
        <circle v-for="dot in drawn.others" :key="dot.key" :cx="dot.x" :cy="dot.y" r="2.5" class="other" />
        <polyline :points="drawn.leading.map(({ x, y }) => `${x},${y}`).join(' ')" class="join" />
        <g v-for="dot in [...drawn.rest, ...drawn.leading]" :key="dot.key">
          <circle
            :cx="dot.x"
            :cy="dot.y"
            :r="dot.way.leads ? 6 : 4"
            :class="{ leads: dot.way.leads, unbeaten: true, picked: picked === dot.key }"
          />
        </g>
        <g v-for="dot in drawn.now" :key="dot.key">
          <circle :cx="dot.x" :cy="dot.y" r="8" class="now" />
          <text :x="dot.x + 12" :y="dot.y + 5" class="here">this plan</text>
        </g>
      </svg>
      <p v-if="front && front.ways.length > 0" class="soft">
        Up is safer, left is cheaper. Every dot passes the same checks as this plan, within the accepted odds.
        The line joins those worth choosing between.
      </p>
      <BButton v-if="looking" size="sm" variant="outline-secondary" @click="stop">Stop looking</BButton>
      <BButton v-else-if="front && !front.done" size="sm" variant="outline-secondary" @click="look">
        Look again
      </BButton>
    </section>
    <section v-if="shown.length > 0" aria-label="The ones worth choosing between">
      <div class="heading-row"><h2>The ones worth choosing between</h2></div>
      <table class="panel figure">
        <thead class="soft">
          <tr>
            <th scope="col">way</th>
            <th scope="col">odds</th>
            <th scope="col" class="number">total with expected damage, {{ currency }}</th>
            <th scope="col" class="number">min</th>
            <th scope="col" class="number plastic">plastic</th>
          </tr>
        </thead>
        <tbody>
          <template v-for="way in shown" :key="wayKey(way)">
            <tr :class="{ now: way.is_now, picked: picked === wayKey(way) }">
              <th scope="row">
                <button type="button" :aria-expanded="picked === wayKey(way)" @click="pick(way)">
                  {{ wayWords(way) }}
                </button>
              </th>
              <td>{{ oneIn(way.odds.about) }}</td>
              <td class="number"><SumOf of="total_then" :sum="way.cost" bare /></td>
              <td class="number">{{ way.minutes.toFixed(0) }}</td>
              <td class="number plastic">{{ grams(way.plastic_g) }}</td>
            </tr>
            <tr v-if="picked === wayKey(way)" class="opened">
              <td colspan="5">
                <p v-if="way.is_now && way.unbeaten">
                  This is the present plan. Nothing found so far is better.
                </p>
                <p v-else-if="way.is_now">This is the plan as it is.</p>
                <template v-else>
                  <p v-if="!way.unbeaten">Something that was found meanwhile beats it.</p>
                  <p>Against this plan: <ChangeFigures :change="way.change" /></p>
                  <p class="soft">
                    {{ way.carrier }}. <em>Take this way</em> stands at the foot; <kbd>z</kbd> takes it back.
                  </p>
                </template>
              </td>
            </tr>
          </template>
        </tbody>
      </table>
      <button
        v-if="more > 0 || all"
        type="button"
        class="btn btn-sm btn-outline-secondary"
        @click="all = !all"
      >
        {{ all ? 'Only the ones worth choosing between' : `${counted(more, 'way')} more that nothing beats` }}
      </button>
    </section>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.ways {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 16px;
}
svg {
  display: block;
  width: 100%;
  height: auto;
}
svg text {
  fill: var(--peat-soft);
  font-size: var(--drawn);
}
.grid {
  stroke: var(--sedge);
}
.other {
  fill: var(--dot);
}
.join {
  fill: none;
  stroke: var(--moss);
  stroke-width: 2px;
}
.unbeaten {
  fill: var(--paper);
  stroke: var(--moss);
  stroke-width: 2px;
}
.unbeaten.leads {
  fill: var(--moss);
}
.unbeaten.picked {
  stroke: var(--heather);
  stroke-width: 5px;
}
circle.now {
  fill: var(--heather);
}
svg .here {
  fill: var(--heather);
  stroke: var(--paper);
  stroke-width: 4px;
  paint-order: stroke;
  font-weight: 600;
}
table {
  width: 100%;
  margin-bottom: 8px;
}
th,
td {
  padding: 4px 10px;
  font-weight: 400;
  text-align: left;
  vertical-align: middle;
}
tbody tr {
  border-top: 1px solid var(--sedge);
}
td {
  white-space: nowrap;
}
.opened {
  border-top: 0;
}
.opened td {
  padding-bottom: 12px;
  white-space: normal;
}
.opened p {
  margin: 0 0 8px;
}
tr.now {
  background: var(--lichen);
}
tr.picked th {
  box-shadow: inset 4px 0 var(--heather);
}
th button {
  min-height: 44px;
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  font-weight: 600;
  text-align: left;
}
.number {
  text-align: right;
}
@include at.phone {
  td,
  th {
    padding: 4px 6px;
  }
  .plastic {
    display: none;
  }
}
</style>
