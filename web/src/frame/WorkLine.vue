<script setup lang="ts">
import { computed } from 'vue';
import { useRoute } from 'vue-router';

import type { Mark } from '@/api/types';
import { counted, oneIn } from '@/words/grammar';
import { STOPS } from '@/shipment/stops';
import { useShipment } from '@/shipment/useShipment';
import * as show from '@/units/show';
import { useUnits } from '@/units/useUnits';

const { slim = false } = defineProps<{
  /** Names and marks in one line, for a page that needs the room. */
  slim?: boolean;
}>();
const { id, line, summary, draft, tracking, against } = useShipment();
const units = useUnits();
const route = useRoute();

/** What came of it, as short as a headline. */
const OUTCOMES: Record<string, string | undefined> = {
  arrived: 'arrived',
  damaged: 'damaged',
  lost: 'lost',
  returned: 'came back',
};
const MARKS: Record<Mark, string> = { done: 'done', open: 'open', look: 'needs a look' };

/** Why there is no price. */
function unpriced(asked: boolean | undefined): string {
  if (!draft.buyer.country) return 'no country';
  return asked ? 'refused' : 'no carrier yet';
}

const headlines = computed(() => {
  const figures = summary.value;
  const nothing = '–';
  const send = tracking.value ?? (draft.sending.handed_over ? show.day(draft.sending.handed_over) : nothing);
  const after = OUTCOMES[draft.after.outcome] ?? (draft.sending.handed_over ? 'on its way' : nothing);
  if (!figures)
    return {
      measure: 'not measured',
      guard: nothing,
      box: nothing,
      price: nothing,
      pack: nothing,
      weigh: nothing,
      send,
      after,
    };
  const { size, one_in, outside, best, weighed, packed } = figures;
  return {
    measure:
      (figures.pieces ?? 1) > 1
        ? counted(figures.pieces ?? 1, 'piece')
        : // A loose sheet is measured by two sides.
          units.size(
            ...([size.width_mm, size.height_mm, size.depth_mm].filter((mm) => mm >= 0.5) as [number, number]),
          ),
    guard: one_in ? oneIn(one_in.about) : '–',
    box: units.size(outside.across_mm, outside.up_mm, outside.through_mm),
    price: best ? show.money(figures.cost?.to_send ?? best.total) : unpriced(figures.asked),
    pack: packed ? `${packed.done} of ${packed.steps} done` : `≈ ${figures.minutes.toFixed(0)} min`,
    weigh: weighed ? show.kilograms(weighed.mass_g) : `≈ ${show.kilograms(figures.weight.mass_g)}`,
    send,
    after,
  };
});

/** What is in the way and settled at a stop; a Mind was looked at with its stop. */
const matterAt = (name: string) =>
  against.value.find(({ at, level, kind }) => at === name && level !== 'note' && kind !== 'mind');
const stops = computed(() =>
  STOPS.map(({ name, title }) => {
    const matter = matterAt(name);
    const mark = line.value?.stops.find(({ stop }) => stop === name)?.mark ?? ('open' as const);
    return {
      name,
      title,
      mark: matter ? ('look' as const) : mark,
      says: matter ? `${MARKS.look}: ${matter.says}` : MARKS[mark],
      here: route.name === name,
    };
  }),
);
const here = computed(() => stops.value.findIndex((stop) => stop.here));
/** On a phone the current stop and its neighbours are named, the others are marks. */
const near = (at: number) => Math.abs(at - Math.min(Math.max(here.value, 1), STOPS.length - 2)) <= 1;
</script>

<template>
  <nav class="line" :class="{ slim }" aria-label="Work line">
    <RouterLink
      v-for="(stop, at) in stops"
      :key="stop.name"
      :to="{ name: stop.name, params: { id } }"
      class="stop"
      :class="[stop.mark, { here: stop.here, far: !near(at) }]"
      :aria-current="stop.here ? 'step' : undefined"
    >
      <span class="name">
        <span class="mark" aria-hidden="true" />
        <span class="title">{{ stop.title }}</span>
        <span class="visually-hidden">, {{ stop.says }}</span>
      </span>
      <span class="headline figure" :data-sum="stop.name === 'price' ? 'to_send' : undefined">{{
        headlines[stop.name]
      }}</span>
      <svg
        v-if="stop.here && !slim"
        class="mound"
        viewBox="0 0 200 30"
        preserveAspectRatio="none"
        aria-hidden="true"
      >
        <path d="M0 29H8C44 29 52 3 100 3S156 29 192 29H200" />
      </svg>
    </RouterLink>
  </nav>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.line {
  display: grid;
  grid-template-columns: repeat(8, minmax(0, 1fr));
  margin: 8px 0 16px;
}
.stop {
  position: relative;
  display: flex;
  flex-direction: column;
  align-items: center;
  padding: 2px 4px 22px;
  border-bottom: 2px solid var(--peat);
  color: var(--peat);
  text-align: center;
  text-decoration: none;
}
.stop.here {
  border-bottom-color: transparent;
}
.name {
  display: flex;
  align-items: center;
  gap: 8px;
  font-family: var(--heading);
  font-size: var(--type-strong);
  font-weight: 600;
}
.here .name {
  color: var(--heather);
  font-size: var(--type-lead);
}
.headline {
  min-height: 1.5em;
  color: var(--peat-soft);
}
.here .headline {
  color: var(--peat);
  font-weight: 600;
}
.mark {
  width: 12px;
  height: 12px;
  border: 2px solid var(--peat-soft);
  border-radius: 50%;
}
.done .mark {
  border-color: var(--moss);
  background: var(--moss);
}
.look .mark {
  border-color: var(--amber-moss);
  border-radius: 1px;
  transform: rotate(45deg);
  background: linear-gradient(to top right, transparent 42%, var(--amber-moss) 42% 58%, transparent 58%);
}
.mound {
  position: absolute;
  right: 0;
  bottom: -2px;
  left: 0;
  z-index: -1;
  width: 100%;
  height: 24px;
  overflow: visible;
}
.mound path {
  fill: var(--trough);
  stroke: var(--peat);
  stroke-width: 2px;
  vector-effect: non-scaling-stroke;
}
@include at.wider-than-phone {
  .line.slim {
    display: flex;
    margin: 0;
  }
  .slim .stop {
    flex: 1;
    flex-direction: row;
    gap: 8px;
    min-height: 44px;
    justify-content: center;
    padding: 0 4px;
    border-bottom: 0;
  }
  .slim .here {
    box-shadow: inset 0 -4px 0 var(--heather);
  }
  .slim .name {
    font-size: var(--type-text);
  }
  .slim .headline {
    min-height: 0;
    white-space: nowrap;
  }
  .slim .stop:not(.here) .headline {
    display: none;
  }
}
@media (forced-colors: active) {
  .mark {
    border-color: CanvasText;
  }
  .done .mark {
    background: CanvasText;
  }
}
/* On paper a size is wider than an eighth of the sheet. */
@media print {
  .stop:not(.here) .headline {
    display: none;
  }
  .here .headline {
    white-space: nowrap;
  }
}
@include at.desk {
  /* A size needs more room than a price. */
  .line {
    grid-template-columns: 1.35fr 0.85fr 1.35fr repeat(5, 0.9fr);
  }
  .headline {
    font-size: var(--type-small);
  }
  .name {
    gap: 5px;
    font-size: var(--type-text);
  }
  /* The page says it below, at each step. */
  @include at.wider-than-phone {
    .slim .here .headline {
      display: none;
    }
  }
}
@include at.phone {
  /* The current stop and its neighbours are as wide as their names; the figure hangs below without a width of its own. */
  .line {
    display: flex;
  }
  .stop {
    flex: 1 1 auto;
    min-height: 48px;
    padding: 2px 1px 44px;
  }
  .far {
    flex: 1 1 30px;
  }
  .far .title {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
  .far .mark {
    width: 13px;
    height: 13px;
    margin-top: 4px;
  }
  .here .name {
    font-size: var(--type-small);
  }
  .name {
    font-size: var(--type-small);
    gap: 3px;
  }
  .mark {
    width: 9px;
    height: 9px;
  }
  .headline {
    display: none;
  }
  .here .headline {
    position: absolute;
    top: 26px;
    display: block;
    font-size: var(--type-small);
    line-height: 1.25;
    white-space: nowrap;
  }
  /* A long size at either end reaches inward, not out of the page. */
  .stop:first-child .headline {
    left: 0;
  }
  .stop:last-child .headline {
    right: 0;
  }
}
</style>
