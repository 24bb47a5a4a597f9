<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormRadioGroup } from 'bootstrap-vue-next/components/BFormRadio';
import { useEventListener } from '@vueuse/core';
import { computed, ref, watch } from 'vue';

import type { PackStepView } from '@/api/types';
import { useNextStep } from '@/frame/foot';
import type { Said } from '@/frame/foot';
import { counted } from '@/words/grammar';
import { useKeysWork } from '@/keys/useKeys';
import PaperLink from '@/parts/PaperLink.vue';
import PhotographStrip from '@/photographs/PhotographStrip.vue';
import { useShipment } from '@/shipment/useShipment';
import { dayAndTime } from '@/units/show';

import { useNextParcel } from './day';
import PackList from './PackList.vue';
import { sheetOf } from './sheet';
import { titleOf } from './steps';
import StepStage from './StepStage.vue';
import { usePacking } from './usePacking';

/** The packing, one step at a time, legible at arm's length. */
const { id, draft, plan } = useShipment();
/** When the first step was done. */
const begun = computed(() => {
  const first = Object.values(draft.packed)
    .map(({ at }) => at)
    .toSorted()[0];
  return first ? dayAndTime(first) : '';
});
const { packing, steps, standing, tick, takeBack, away } = usePacking();

const next = useNextParcel();
const VIEWS = [
  { value: false, text: 'one step at a time' },
  { value: true, text: 'all as a list' },
];
const asList = ref(false);
const key = ref<string>();
/** What is looked at: where somebody went, else the first step that is not done. */
const place = computed(() => {
  const chosen = steps.value.findIndex((step) => step.key === key.value);
  if (chosen >= 0) return chosen;
  const next = steps.value.findIndex((step) => standing(step) !== 'done');
  return next >= 0 ? next : steps.value.length - 1;
});
const step = computed((): PackStepView | undefined => steps.value[place.value]);
const finished = computed(
  () => steps.value.length > 0 && steps.value.every((one) => standing(one) === 'done'),
);
/** Whether somebody wanted to go on where something has to be answered or done first. */
const nudged = ref(false);
watch(
  () => step.value?.key,
  () => {
    nudged.value = false;
  },
);
const first = (keys: readonly string[]) =>
  steps.value.find((one) => keys.includes(one.key) && standing(one) !== 'done');
/** Whether something has to be answered here. */
const asks = computed(() => step.value?.look?.stops === true);
/** What has to be done before this step. */
const before = computed(() => step.value && first(step.value.waits_for));

function go(to: number): void {
  key.value = steps.value[Math.max(0, Math.min(to, steps.value.length - 1))]?.key;
}
/** Does the step and goes on; a question is answered by its button alone, not by a slip of the hand. */
function forward(answered = false): void {
  const [now, at] = [step.value, place.value];
  if (!now) return;
  if (before.value) {
    nudged.value = true;
    return;
  }
  if (standing(now) !== 'done') {
    if (now.look?.stops && !answered) {
      nudged.value = true;
      return;
    }
    tick(now);
  }
  go(at + 1);
}

const work = useKeysWork();
const OWN = 'label, input, textarea, select, button, a, summary, .modal, [contenteditable]';
useEventListener(document, 'keydown', (event: KeyboardEvent) => {
  if (!work.value || asList.value || event.ctrlKey || event.metaKey || event.altKey) return;
  const onControl = event.target instanceof Element && event.target.closest(OWN) !== null;
  // Space on a button presses that button; a pedal's keys mean the step wherever one is.
  if (event.key === ' ' && onControl) return;
  if (event.key === ' ' || event.key === 'PageDown') {
    event.preventDefault();
    forward();
  } else if (event.key === 'PageUp') {
    event.preventDefault();
    go(place.value - 1);
  }
});
/** Those that can be ticked together: nothing has to be answered at them. */
const plain = computed(() =>
  steps.value.filter((one) => standing(one) !== 'done' && one.look?.stops !== true),
);
useNextStep((): Said | undefined => {
  const now = step.value;
  if (!plan.value) return { verb: { text: 'Measure it first', to: { name: 'measure', params: { id } } } };
  if (!now) return undefined;
  if (finished.value) {
    const then = next.value;
    return {
      verb: { text: 'Weigh it', to: `/shipments/${id}/weigh` },
      against: { level: 'note', says: 'Packed.' },
      ...(then ? { other: { text: `Next: ${then.title}`, to: then.to } } : {}),
    };
  }
  if (asList.value)
    return {
      verb: { text: 'All done', press: () => tick(...plain.value), disabled: plain.value.length === 0 },
    };
  const first = before.value;
  const other = place.value > 0 ? { other: { text: 'Back', press: () => go(place.value - 1) } } : {};
  if (first)
    return {
      ...other,
      verb: { text: 'Done, next', disabled: true },
      against: {
        level: 'mind',
        says: `First: ${titleOf(first)}.`,
        way: { text: 'Go there', press: () => (key.value = first.key) },
      },
    };
  if (standing(now) === 'done') return { ...other, verb: { text: 'Next', press: () => go(place.value + 1) } };
  // What has to be answered is read where it is answered.
  const asked = now.look && asks.value ? { against: { level: 'note' as const, says: now.look.asks } } : {};
  return {
    ...other,
    ...asked,
    verb: { text: asks.value ? 'Yes: done, next' : 'Done, next', press: () => forward(true) },
  };
});
/** A tap anywhere on the step that is no control of its own. */
function tapped(event: MouseEvent): void {
  const onControl = event.target instanceof Element && event.target.closest(OWN) !== null;
  if (!onControl && window.getSelection()?.isCollapsed !== false) forward();
}
</script>

<template>
  <div v-if="plan && packing" class="pack">
    <p v-if="packing.gone.length > 0" class="mind" role="status">
      {{ counted(packing.gone.length, 'thing') }} that you laid
      {{ packing.gone.length === 1 ? 'is' : 'are' }} no longer in the plan. Take
      {{ packing.gone.length === 1 ? 'it' : 'them' }} off the piece, then say so:
      <BButton
        v-for="gone in packing.gone"
        :key="gone"
        size="sm"
        variant="outline-secondary"
        @click="takeBack(gone)"
      >
        {{ gone.replace(/^.*\//, '').replaceAll('_', ' ') }} is off
      </BButton>
    </p>
    <div class="views no-print">
      <BFormRadioGroup v-model="asList" :options="VIEWS" buttons size="sm" aria-label="How it is shown" />
      <PaperLink :href="sheetOf(id)" class="btn btn-sm btn-outline-secondary">Pack sheet to print</PaperLink>
      <PaperLink :href="`/api/v1/shipments/${id}/unpacking-guide`" class="btn btn-sm btn-outline-secondary">
        Unpacking guide for the buyer
      </PaperLink>
      <span v-if="begun" class="soft figure">begun {{ begun }}</span>
      <RouterLink v-if="next" class="btn btn-sm btn-outline-secondary" :to="next.to">
        Then {{ next.title }}, {{ counted(next.left, 'parcel') }} to come
      </RouterLink>
      <span v-if="away" class="soft" role="status">
        The server is away: go on, ticks are kept and sent when it is back.
      </span>
    </div>
    <PackList
      v-if="asList"
      :steps="steps"
      :standing="standing"
      @tick="(done) => tick(...done)"
      @back="(gone) => takeBack(gone)"
    />
    <div v-else class="bench">
      <ol class="steps" aria-label="Steps">
        <li
          v-for="(one, at) in steps"
          :key="one.key"
          :class="[`is-${standing(one)}`, { here: at === place }]"
        >
          <button
            type="button"
            :data-key="one.key"
            :aria-current="at === place ? 'step' : undefined"
            @click="go(at)"
          >
            <span class="mark" aria-hidden="true">{{
              standing(one) === 'done' ? '✓' : standing(one) === 'touched' ? '↻' : ''
            }}</span>
            <span class="title">{{ titleOf(one) }}</span>
            <span class="visually-hidden"
              >{{
                standing(one) === 'done' ? ', done' : standing(one) === 'touched' ? ', to be done again' : ''
              }}
            </span>
            <span v-if="at === place" class="figure">now</span>
            <span v-else-if="one.minutes >= 0.5" class="figure">{{ one.minutes.toFixed(0) }} min</span>
          </button>
        </li>
      </ol>
      <!-- eslint-disable-next-line vuejs-accessibility/click-events-have-key-events, vuejs-accessibility/no-static-element-interactions -->
      <section v-if="step" class="stage" aria-label="The step" @click="tapped">
        <p class="where soft figure">
          step {{ place + 1 }} of {{ steps.length }}
          <span v-if="packing.minutes_left >= 1">about {{ packing.minutes_left.toFixed(0) }} min to go</span>
        </p>
        <p v-if="finished" class="finished" role="status">Packed. Weigh it next.</p>
        <StepStage :step="step" :plan="plan" />
        <PhotographStrip :key="step.key" :shipment="id" :step="step.key" />
        <p v-if="standing(step) === 'touched'" class="mind" role="status">
          This was done, and something here, or under it, is different by now: do it again.
        </p>
        <p v-if="before" class="waits" :class="{ nudged }" role="status">
          First: {{ titleOf(before) }}.
          <BButton size="sm" @click="key = before.key">Go there</BButton>
        </p>
        <div class="buttons no-print">
          <div v-if="step.look && !before && standing(step) !== 'done'" class="look" :class="{ nudged }">
            <p :class="asks ? 'asks' : 'shown'">{{ step.look.asks }}</p>
            <p class="soft">If not: {{ step.look.if_not }}</p>
          </div>
          <BButton
            v-if="standing(step) === 'done'"
            size="lg"
            variant="outline-secondary"
            @click="takeBack(step.key)"
          >
            Not done yet
          </BButton>
          <span class="soft keys">{{
            asks && standing(step) !== 'done' ? 'answer with the button' : 'space, pedal, or tap the step'
          }}</span>
        </div>
      </section>
    </div>
  </div>
  <p v-else-if="plan && away" class="soft" role="status">
    The server is away. The steps come as soon as it is back; nothing is lost.
  </p>
</template>

<style scoped>
.views {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-bottom: 12px;
}
.bench {
  display: grid;
  grid-template-columns: 250px minmax(0, 1fr);
  gap: 20px;
}
.steps {
  max-height: calc(100vh - 280px);
  margin: 0;
  padding: 0 12px 0 0;
  overflow-y: auto;
  border-right: 2px solid var(--peat);
  list-style: none;
}
.steps button {
  display: flex;
  gap: 8px;
  align-items: baseline;
  width: 100%;
  min-height: 34px;
  padding: 4px 8px;
  border: 0;
  border-bottom: 1px solid var(--sedge);
  background: none;
  color: var(--peat);
  text-align: left;
}
.steps .title {
  flex: 1;
}
.steps .is-done button {
  color: var(--peat-soft);
}
.steps .here button {
  border-left: 4px solid var(--heather);
  background: var(--lichen);
  color: var(--peat);
  font-weight: 600;
}
.mark {
  width: 16px;
  color: var(--moss);
  font-weight: 700;
}
.is-touched .mark {
  color: var(--amber-moss);
}
.stage {
  min-width: 0;
}
.where {
  display: flex;
  justify-content: space-between;
  margin: 0;
  font-size: 1.0625rem;
}
.finished {
  display: flex;
  gap: 16px;
  align-items: center;
  margin: 8px 0;
  padding: 12px 16px;
  background: var(--lichen);
  font-size: 1.375rem;
}
.look,
.waits,
.mind {
  margin: 12px 0;
  padding: 10px 16px;
  border-left: 4px solid var(--heather);
  background: var(--paper);
  font-size: 1.25rem;
}
.mind {
  border-left-color: var(--amber-moss);
}
.look {
  flex: 1 0 100%;
  margin: 0;
}
.look p {
  margin: 0;
  font-size: 1.0625rem;
}
.look .asks {
  font-size: 1.375rem;
  font-weight: 600;
}
.nudged {
  outline: 3px solid var(--heather);
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
  padding: 12px 0;
}
.buttons .btn {
  min-height: 64px;
  font-size: 1.375rem;
}
.keys {
  margin-left: auto;
}
@media (max-width: 900px) {
  .bench {
    grid-template-columns: minmax(0, 1fr);
  }
  .steps {
    display: none;
  }
}
@media (max-width: 640px) {
  .keys {
    display: none;
  }
  .buttons {
    gap: 8px;
  }
}
</style>
