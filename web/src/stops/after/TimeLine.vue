<script setup lang="ts">
import { scaleTime } from 'd3-scale';
import { computed } from 'vue';

import type { After } from '@/api/types';
import { dayAndYear } from '@/units/show';

/** What a carrier said, on a line of time from the day it left to the last day that was promised. */
const { events, leftOn, expected, promised } = defineProps<{
  events: After['events'];
  leftOn: string;
  /** The last day on which it was to arrive. */
  expected?: string;
  promised?: string;
}>();

const at = (day: string) => new Date(`${day}T00:00:00Z`);
const ends = computed(() => {
  const days = [leftOn, ...events.map(({ on }) => on), expected ?? '', promised ?? ''].filter(Boolean).sort();
  const [first, last] = [days[0] ?? leftOn, days.at(-1) ?? leftOn];
  return [at(first), new Date(Math.max(at(last).getTime(), at(first).getTime() + 86_400_000))] as const;
});
const scale = computed(() => scaleTime().domain(ends.value).range([0, 100]));
const place = (day: string) => `${scale.value(at(day)).toFixed(2)}%`;
const flags = computed(() =>
  [
    { on: expected, says: 'last day by the carrier' },
    { on: promised, says: 'promised' },
  ]
    .filter((flag): flag is { on: string; says: string } => Boolean(flag.on))
    .toSorted((one, other) => one.on.localeCompare(other.on)),
);
</script>

<template>
  <div class="time">
    <div class="ground" aria-hidden="true">
      <i v-for="flag in flags" :key="flag.says" class="flag" :style="{ left: place(flag.on) }" />
      <i
        v-for="(event, index) in events"
        :key="index"
        class="dot"
        :class="event.fate"
        :style="{ left: place(event.on) }"
      />
    </div>
    <ol>
      <li v-for="(event, index) in events" :key="index" :class="event.fate">
        <span class="figure">{{ dayAndYear(event.on) }}</span> {{ event.says }}
      </li>
      <li v-for="flag in flags" :key="flag.says" class="soft">
        <span class="figure">{{ dayAndYear(flag.on) }}</span> {{ flag.says }}
      </li>
    </ol>
  </div>
</template>

<style scoped>
.ground {
  position: relative;
  height: 20px;
  margin: 8px 10px;
  border-bottom: 2px solid var(--peat);
}
.ground i {
  position: absolute;
}
.dot {
  bottom: -8px;
  width: 14px;
  height: 14px;
  margin-left: -7px;
  border: 2px solid var(--peat);
  border-radius: 50%;
  background: var(--paper);
}
.dot.arrived {
  background: var(--moss);
}
.dot.held {
  background: var(--amber-moss);
}
.dot.damaged,
.dot.lost,
.dot.returned {
  background: var(--rowan);
}
.flag {
  bottom: 0;
  height: 16px;
  border-left: 2px dashed var(--peat-soft);
}
ol {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 24px;
  margin: 0;
  padding: 0;
  list-style: none;
}
li .figure {
  color: var(--peat-soft);
}
</style>
