<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { useMediaQuery } from '@vueuse/core';
import { computed, ref } from 'vue';

import { counted } from '@/words/grammar';
import PhotographStrip from '@/photographs/PhotographStrip.vue';
import { useShipment } from '@/shipment/useShipment';
import { dayAndTime } from '@/units/show';

import { useNextParcel } from './day';
import PackList from './PackList.vue';
import PackWays from './PackWays.vue';
import { titleOf } from './steps';
import StepRail from './StepRail.vue';
import StepsThen from './StepsThen.vue';
import StepStage from './StepStage.vue';
import { usePacking } from './usePacking';
import { OWN, useWalk } from './useWalk';

/** The packing, one step at a time, legible at arm's length. */
const { id, draft, handed, plan } = useShipment();
/** When the first step was done. */
const begun = computed(() => {
  const first = Object.values(draft.packed)
    .filter(({ sheet }) => !sheet)
    .map(({ at }) => at)
    .toSorted()[0];
  return first ? dayAndTime(first) : '';
});
const { packing, then, steps, standing, tick, takeBack, away } = usePacking();

const next = useNextParcel();
const asList = ref(false);
/** Where the foot has no room for it, the way to what comes first stands here too. */
const isNarrow = useMediaQuery('(max-width: 900px)');
const { step, place, finished, nudged, asks, before, go, forward, goTo } = useWalk(
  { steps, standing, tick },
  asList,
  next,
);
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
    <div v-if="asList" class="views no-print">
      <PackWays v-model="asList" :begun="begun" :next="next" :away="away" />
    </div>
    <PackList
      v-if="asList"
      :steps="steps"
      :standing="standing"
      @tick="(done) => tick(...done)"
      @back="(gone) => takeBack(gone)"
    />
    <div v-else class="bench">
      <div class="beside">
        <StepRail :steps="steps" :standing="standing" :place="place" @go="go" />
        <div class="views no-print">
          <PackWays v-model="asList" :begun="begun" :next="next" :away="away" />
        </div>
      </div>
      <!-- eslint-disable-next-line vuejs-accessibility/click-events-have-key-events, vuejs-accessibility/no-static-element-interactions -->
      <section v-if="step" class="stage" aria-label="The step" @click="tapped">
        <p class="where soft figure">
          step {{ place + 1 }} of {{ steps.length }}
          <span v-if="packing.minutes_left >= 1">about {{ packing.minutes_left.toFixed(0) }} min to go</span>
          <span v-if="step.minutes >= 0.5">this one {{ step.minutes.toFixed(0) }} min</span>
        </p>
        <p v-if="finished" class="finished" role="status">
          Packed. The scale reads it here or at Weigh; its label is bought at Send.
        </p>
        <StepStage :step="step" :plan="plan" :steps="steps" :standing="standing" />
        <p v-if="standing(step) === 'touched'" class="mind" role="status">
          Something in or under this step changed since you did it. Do it again.
        </p>
        <!-- The foot says it too, where there is room. -->
        <p v-if="before && (isNarrow || nudged)" class="waits" :class="{ nudged }" role="status">
          First: {{ titleOf(before) }}.
          <BButton v-if="isNarrow" size="sm" @click="goTo(before.key)">Go there</BButton>
        </p>
        <div class="buttons no-print">
          <PhotographStrip :key="step.key" class="photographs" :shipment="id" :step="step.key" />
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
  <StepsThen v-else-if="then && handed" :steps="handed.steps" />
  <p v-else-if="plan && away" class="soft" role="status">
    The server is away. The steps come as soon as it is back; nothing is lost.
  </p>
</template>

<style scoped lang="scss">
@use '@/styles/at';

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
  height: calc(100dvh - var(--foot) - 122px);
  min-height: 480px;
}
.beside {
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
}
.beside .views {
  margin: 0;
}
.stage {
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
}
.where {
  display: flex;
  flex-wrap: wrap;
  gap: 0 24px;
  justify-content: flex-start;
  margin: 0;
  font-size: var(--type-strong);
}
.finished {
  display: flex;
  gap: 16px;
  align-items: center;
  margin: 8px 0;
  padding: 12px 16px;
  background: var(--lichen);
  font-size: var(--type-lead);
}
.look,
.waits,
.mind {
  margin: 12px 0;
  padding: 10px 16px;
  border-left: 4px solid var(--heather);
  background: var(--paper);
  font-size: var(--type-lead);
}
.waits {
  margin: 4px 0;
  padding: 6px 16px;
}
.mind {
  border-left-color: var(--amber-moss);
}
.look {
  flex: 1 1 340px;
  margin: 0;
}
.look p {
  margin: 0;
  font-size: var(--type-strong);
}
.look .asks {
  font-size: var(--type-lead);
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
  padding: 4px 0 8px;
}
.buttons .btn {
  min-height: 64px;
  font-size: var(--type-lead);
}
.keys {
  margin-left: auto;
}
@include at.tablet {
  .bench {
    grid-template-columns: minmax(0, 1fr);
    height: auto;
  }
  .beside {
    order: 1;
  }
}
@include at.phone {
  .keys {
    display: none;
  }
  .buttons {
    gap: 8px;
  }
}
</style>
