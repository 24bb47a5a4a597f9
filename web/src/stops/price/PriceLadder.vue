<script setup lang="ts">
import { computed } from 'vue';

import type { Quote, ServiceLadder } from '@/api/types';
import { kilograms, money } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import { amountWords, FRAME, lessWords, treads } from './ladder';

/** Where the parcel stands between a service's prices: how far it is down, and how much room there is up. */
const { quote, ladder } = defineProps<{ quote: Quote; ladder: ServiceLadder }>();
const units = useUnits();

const MORE = { across: 'wider', up: 'higher', through: 'deeper', mass: 'heavier' };

const drawn = computed(() => treads(ladder.ladder, quote.billable.billable_g));
const less = computed(() =>
  ladder.steps.map((step) => ({
    key: step.along,
    how: lessWords(step, units),
    does: step.saves ? `saves ${money(step.saves)}` : `and it is taken, for ${money(step.becomes)}`,
  })),
);
const more = computed(() =>
  ladder.room.map((room) => ({
    key: room.along,
    how: `${amountWords(room.more_mm, room.more_g, false, units)} ${MORE[room.along]} costs nothing more`,
    then: room.dip
      ? `beyond it the tariff takes less: ${room.beyond ? money(room.beyond) : ''}`
      : room.beyond
        ? `beyond it ${money(room.beyond)}`
        : 'beyond it it is not taken',
  })),
);

const says = computed(() => {
  const at = `${quote.service} bills ${kilograms(quote.billable.billable_g)}`;
  return [
    at,
    ...less.value.map(({ how, does }) => `${how} ${does}`),
    ...more.value.map(({ how }) => how),
  ].join('; ');
});
</script>

<template>
  <div class="ladder">
    <svg
      v-if="drawn.drawn.length > 0"
      :viewBox="`0 0 ${FRAME.width} ${FRAME.height}`"
      role="img"
      :aria-label="says"
      class="figure"
    >
      <g v-for="tread in drawn.drawn" :key="tread.from">
        <line v-if="tread.told" :x1="FRAME.left" :x2="tread.from" :y1="tread.y" :y2="tread.y" class="guide" />
        <line :x1="tread.from" :x2="tread.to" :y1="tread.y" :y2="tread.y" class="tread" />
        <line :x1="tread.to" :x2="tread.to" :y1="tread.y" :y2="drawn.base" class="riser" />
        <text v-if="tread.told" :x="FRAME.left - 6" :y="tread.y + 4" text-anchor="end">
          {{ tread.price }}
        </text>
      </g>
      <line :x1="FRAME.left" :x2="FRAME.width - FRAME.right" :y1="drawn.base" :y2="drawn.base" class="axis" />
      <text v-for="tick in drawn.ticks" :key="tick.x" :x="tick.x" :y="drawn.base + 16" text-anchor="middle">
        {{ tick.kg }}
      </text>
      <text :x="FRAME.width - FRAME.right" :y="FRAME.height - 2" text-anchor="end">kg billed</text>
      <g v-if="drawn.at">
        <line :x1="drawn.at.x" :x2="drawn.at.to" :y1="drawn.at.y" :y2="drawn.at.y" class="room" />
        <circle :cx="drawn.at.x" :cy="drawn.at.y" r="6" class="here" />
      </g>
    </svg>
    <p v-else class="soft">A flat price: size and weight change nothing as long as it goes in.</p>
    <ul class="figure">
      <li v-for="way in less" :key="`less ${way.key}`">
        <strong>{{ way.how }}</strong> {{ way.does }}
      </li>
      <li v-for="way in more" :key="`more ${way.key}`" class="soft">{{ way.how }}; {{ way.then }}</li>
    </ul>
  </div>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-width: 520px;
  background: var(--paper);
  border: 1px solid var(--sedge);
}
text {
  fill: var(--peat);
  font-size: var(--drawn);
}
.axis,
.riser,
.guide {
  stroke: var(--sedge);
}
.tread {
  stroke: var(--peat);
  stroke-width: 3;
}
.room {
  stroke: var(--moss);
  stroke-width: 3;
  stroke-dasharray: 4 3;
}
.here {
  fill: var(--heather);
}
ul {
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
}
li {
  padding: 4px 0;
  border-top: 1px solid var(--sedge);
}
</style>
