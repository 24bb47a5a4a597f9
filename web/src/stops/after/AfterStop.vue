<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import type { After } from '@/api/types';
import { useStudio } from '@/api/useStudio';
import { counted } from '@/words/grammar';
import { FATES, OUTCOMES } from '@/words/vocabulary';
import { useNextStep } from '@/frame/foot';
import type { Said } from '@/frame/foot';
import DraftField from '@/parts/DraftField.vue';
import DraftText from '@/parts/DraftText.vue';
import PaperLink from '@/parts/PaperLink.vue';
import StandInNote from '@/parts/StandInNote.vue';
import PhotographStrip from '@/photographs/PhotographStrip.vue';
import { vSay } from '@/said/say';
import { useShipment } from '@/shipment/useShipment';
import { dayAndYear } from '@/units/show';

import BesidePlan from './BesidePlan.vue';
import CaseReturned from './CaseReturned.vue';
import ClaimPanel from './ClaimPanel.vue';
import TimeLine from './TimeLine.vue';

/** What came of a parcel: where it is, in what state it arrived, what is claimed, and what was learned. */
const { id, draft, stored, line, version, put, save, caseBack } = useShipment();
const { studio } = useStudio();
const {
  data: after,
  away,
  reload,
} = useRead<After>({
  queryKey: computed(() => ['after', id, version.value]),
  queryFn: ({ signal }) =>
    answer(api.GET('/api/v1/shipments/{id}/after', { params: { path: { id } }, signal })),
  enabled: computed(() => version.value > 0),
  placeholderData: (before: After | undefined) => before,
});

const hasLeft = computed(() => draft.sending.handed_over !== '');
/** What has arrived, or will not, is on its way no more. */
const heading = computed(() => {
  const over = ['arrived', 'damaged', 'lost', 'returned'];
  const ended = draft.after.outcome || over.includes(after.value?.following?.fate ?? '');
  return ended ? 'Its way' : 'On its way';
});
const harmed = computed(() => draft.after.outcome === 'damaged' || draft.after.outcome === 'lost');
const held = computed(() => (after.value?.following.fate === 'held' ? after.value.following : undefined));
const left = computed(() => {
  const days = held.value?.days_left;
  if (days === null || days === undefined) return '';
  if (days < 0) return 'that day is over';
  return days === 0 ? 'today is the last day' : `${counted(days, 'day')} left`;
});
const said = computed(() => {
  const following = after.value?.following;
  if (!following || after.value?.events.length === 0) return '';
  const since = following.since ? `, ${dayAndYear(following.since)}` : '';
  return `The carrier says: ${FATES[following.fate]}${since}`;
});
const layers = computed(() => {
  const slots = new Map(studio.value?.slots.map(({ slot, name }) => [slot as string, name]) ?? []);
  const known = stored.value?.worked.plan?.layers.map(({ slot }) => slot as string) ?? [];
  return [...new Set(known)].map((slot) => ({ value: slot, text: slots.get(slot as never) ?? slot }));
});

/** It is delivered, and nobody has said how: the carrier's days run. */
const waits = computed(() => {
  const { following, deadline } = after.value ?? {};
  const delivered = following?.fate === 'arrived' || following?.fate === 'damaged';
  if (!delivered || draft.after.outcome || deadline?.kind !== 'damage') return '';
  if (deadline.days_left < 0) return 'Delivered; the days in which damage is heard are over.';
  const until = deadline.days_left === 0 ? 'today' : `${dayAndYear(deadline.last_day)}`;
  return `Delivered: ask the buyer whether it is whole. The carrier hears of damage until ${until}.`;
});

function came(outcome: string): void {
  draft.after.outcome = outcome;
  const following = after.value?.following;
  const over = following && ['arrived', 'damaged', 'lost', 'returned'].includes(following.fate);
  draft.after.on ||= (over && following.since) || studio.value?.today || '';
  void save();
}
function takeBack(): void {
  Object.assign(draft.after, { outcome: '', on: '' });
  void save();
}
const stays = ref('');
async function archive(): Promise<void> {
  stays.value = '';
  await put('archive').catch((error: unknown) => {
    stays.value = error instanceof Error ? error.message : 'something went wrong in the page';
  });
}
useNextStep((): Said => {
  if (!hasLeft.value)
    return {
      verb: { text: 'Send it', to: { name: 'send', params: { id } } },
      hint: { level: 'note', says: 'It has not left yet.' },
    };
  if (line.value?.next.kind === 'put_away')
    return { verb: { text: 'Put it in the archive', press: archive } };
  const bench: Said['verb'] = { text: 'Back to the bench', to: '/' };
  if (draft.after.outcome) return { verb: bench };
  if (waits.value)
    return {
      verb: { text: 'It arrived whole', press: () => came('arrived') },
      hint: { level: 'mind', says: waits.value },
    };
  return { verb: bench, hint: { level: 'note', says: said.value ? `${said.value}.` : 'On its way.' } };
});
</script>

<template>
  <div v-if="!hasLeft" class="panel not-yet">
    <h2>It has not left yet</h2>
    <p>Record the outcome here once the parcel is handed over.</p>
  </div>
  <div v-else-if="after" class="two-columns">
    <section :aria-label="heading" class="panel wide">
      <div class="heading-row">
        <h2>{{ heading }}</h2>
        <BButton v-if="after.followed" size="sm" class="no-print" @click="reload"
          >Ask the carrier again</BButton
        >
      </div>
      <p v-if="said" v-say class="said" data-test="said">{{ said }}.</p>
      <p v-else-if="!after.followed" class="soft">
        This parcel was not booked with Hummock, so it can’t be tracked. Record its outcome below.
      </p>
      <p v-else class="soft">The carrier has said nothing yet.</p>
      <p v-if="after.followed && !after.answered" class="soft" role="status">
        The carrier doesn’t answer just now; this is its last report.
      </p>
      <div v-if="held" v-say class="notice" data-test="held">
        <strong>It is held until a paper comes: {{ held.paper }}</strong
        >, {{ left }}; then it goes back. Send it to the carrier, with the number of the parcel.
        <PaperLink v-if="after.customs" :href="`/api/v1/shipments/${id}/papers/customs`"
          >Customs paper</PaperLink
        >
      </div>
      <p v-if="after.overdue && after.expected" v-say class="mind" data-test="overdue">
        It is overdue since {{ dayAndYear(after.expected) }}: ask the carrier where it is.
      </p>
      <StandInNote v-if="after.followed" does="makes up its way and its days" />
      <TimeLine
        :events="after.events"
        :left-on="draft.sending.handed_over"
        :expected="after.expected ?? undefined"
        :promised="draft.promised"
      />
    </section>
    <div>
      <section aria-label="Outcome" class="panel second">
        <div class="heading-row"><h2>Outcome</h2></div>
        <p v-if="waits" v-say data-test="waits">{{ waits }}</p>
        <div v-if="!draft.after.outcome" class="outcomes no-print">
          <BButton
            v-for="{ value, text } in OUTCOMES"
            :key="value"
            variant="outline-secondary"
            @click="came(value)"
          >
            {{ text }}
          </BButton>
        </div>
        <template v-else>
          <p class="outcome" :class="{ harmed }" data-test="outcome">
            {{ OUTCOMES.find(({ value }) => value === draft.after.outcome)?.text }}
            <BButton size="sm" variant="link" class="no-print" @click="takeBack">Take that back</BButton>
          </p>
          <DraftField path="after.on" :label="draft.after.outcome === 'lost' ? 'Reported lost on' : 'On'" />
          <template v-if="draft.after.outcome === 'damaged'">
            <DraftText path="after.damage" hint="the box first, then what is broken and where" />
            <DraftField path="after.failed" :codes="layers" empty="not known" />
            <p class="soft photos">Photographs of the box, its padding, and the damage.</p>
            <PhotographStrip :shipment="id" step="after/damage" />
          </template>
          <p v-if="stays" v-say class="stop">It stays here: {{ stays }}.</p>
        </template>
      </section>
      <section v-if="harmed" aria-label="Claim" class="panel third">
        <ClaimPanel :deadline="after.deadline ?? undefined" />
      </section>
      <CaseReturned v-if="caseBack" />
    </div>
    <div>
      <section aria-label="Beside the plan" class="panel fourth">
        <BesidePlan v-if="after.beside" :beside="after.beside" />
        <DraftText path="after.lesson" hint="it shows up when a like piece is planned" />
      </section>
    </div>
  </div>
  <p v-else-if="away" v-say class="soft">The outcome can’t be read just now. Trying again.</p>
  <p v-else class="soft">Looking it up</p>
</template>

<style scoped>
.panel {
  padding: 12px 16px 16px;
}
.not-yet {
  align-self: start;
}
p {
  margin: 0 0 8px;
}
.said {
  font-size: var(--type-lead);
  font-weight: 600;
}
.outcomes {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.outcome {
  font-size: var(--type-lead);
  font-weight: 600;
}
.harmed,
.stop {
  color: var(--rowan);
}
.mind {
  color: var(--amber-moss);
  font-weight: 600;
}
.photos {
  margin: 0;
}
</style>
