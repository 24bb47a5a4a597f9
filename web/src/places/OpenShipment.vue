<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, defineAsyncComponent, onScopeDispose, ref, watch, watchEffect } from 'vue';
import { onBeforeRouteLeave, useRouter } from 'vue-router';

import { answer, api } from '@/api/client';
import ConflictNotice from '@/frame/ConflictNotice.vue';
import { provideFoot } from '@/frame/foot';
import type { Said } from '@/frame/foot';
import FootBar from '@/frame/FootBar.vue';
import NotTaken from '@/frame/NotTaken.vue';
import SaveLight from '@/frame/SaveLight.vue';
import { useOpened } from '@/frame/title';
import AsFarAsShown from '@/places/AsFarAsShown.vue';
import MissingShipment from '@/places/MissingShipment.vue';
import WorkLine from '@/frame/WorkLine.vue';
import { counted, worded } from '@/words/grammar';
import { CONSTRUCTIONS, MEDIA } from '@/words/vocabulary';
import { useKeys } from '@/keys/useKeys';
import { vSay } from '@/said/say';
import { STOPS } from '@/shipment/stops';
import { provideShipment } from '@/shipment/useShipment';
import { day, dayAndYear } from '@/units/show';

const { id } = defineProps<{ id: string }>();
const { draft, state, trouble, stored, away, left, kept, refusals, put, save } = provideShipment(id);
provideFoot();
const router = useRouter();

const name = computed(() => draft.title || (stored.value ? 'Untitled' : 'A new parcel'));
const opened = useOpened();
watchEffect(() => {
  opened.value = state.value === 'missing' ? '' : name.value;
});
onScopeDispose(() => {
  opened.value = '';
});

const about = computed(() => {
  const { piece, buyer, promised } = draft;
  const made = [worded(MEDIA, piece.medium), worded(CONSTRUCTIONS, piece.construction)].filter(Boolean);
  const more = Object.keys(draft.others).length;
  if (more > 0) made.push(`and ${counted(more, 'more piece')} in the same box`);
  const who = [buyer.name, buyer.town].filter(Boolean).join(', ');
  return [made.join(', '), who && `to ${who}`, promised && `promised ${day(promised)}`]
    .filter(Boolean)
    .join(' · ');
});

/** Stops at which a parcel that left is only looked at. */
const closed = computed(() => !['send', 'after'].includes(String(router.currentRoute.value.name)));

/** What became of the file that its plan was kept in. */
const lost = computed(() => {
  if (kept.value?.record === 'missing') return 'missing';
  return kept.value?.record === 'broken' ? 'damaged' : undefined;
});

/** The short way stands by itself: its foot leads to the stops. */
const isShort = computed(() => router.currentRoute.value.name === 'short');

/** At the bench the steps have the screen: what stands above them is small. */
const isBench = computed(() => router.currentRoute.value.name === 'pack');

/** Why it stays where it is put away. */
const stays = ref('');

async function takeBack(): Promise<void> {
  stays.value = '';
  await put('bench').catch((error: unknown) => {
    stays.value = error instanceof Error ? error.message : 'something went wrong in the page';
  });
}

/** The next step of a parcel that is put away or has left; it is the same at every stop. */
const settled = computed((): Said | undefined => {
  if (away.value)
    return {
      verb: { text: 'Back to the bench', press: takeBack },
      hint: { level: 'note', says: away.value === 'bin' ? 'It is deleted.' : 'It is in the archive.' },
    };
  if (left.value && closed.value)
    return {
      verb: { text: 'Follow it', to: { name: 'after', params: { id } } },
      hint: { level: 'note', says: `It left on ${dayAndYear(draft.sending.handed_over)}.` },
    };
  return undefined;
});

/** Opens the shipment beside this one on the bench, at the same stop. */
async function beside(by: number): Promise<void> {
  await save();
  const query = { most: 200, without: ['section' as const] };
  const { rows } = await answer(api.GET('/api/v1/shipments', { params: { query } })).catch(() => ({
    rows: [],
  }));
  const next = rows[rows.findIndex((row) => row.id === id) + by];
  const name = router.currentRoute.value.name ?? 'measure';
  if (next) await router.push({ name, params: { id: next.id } });
}

/** Something to do is looked for by a word: opened now and then, and no part of the first view. */
const FindPanel = defineAsyncComponent(() => import('@/find/FindPanel.vue'));
const finding = ref(false);
const sought = ref(false);
watch(finding, () => (sought.value = true));
useKeys({
  '[': () => void beside(-1),
  ']': () => void beside(1),
  '/': () => {
    finding.value = true;
  },
});
useKeys(
  Object.fromEntries(STOPS.map(({ name, key }) => [key, () => void router.push({ name, params: { id } })])),
);
/** Whoever leaves waits for a server that answers, so that the bench shows what was typed, and for no other. */
const A_MOMENT_MS = 400;
onBeforeRouteLeave(() => Promise.race([save(), new Promise<void>((go) => setTimeout(go, A_MOMENT_MS))]));
</script>

<template>
  <div class="page">
    <div v-if="state === 'missing'">
      <MissingShipment :id="id" />
    </div>
    <template v-else>
      <div :class="{ narrow: isBench }">
        <div class="title">
          <h1>{{ name }}</h1>
          <span class="about soft">{{ about }}</span>
          <SaveLight />
          <BButton variant="link" size="sm" class="find no-print" @click="finding = true">Find</BButton>
        </div>
        <FindPanel v-if="sought" :id="id" v-model="finding" />
        <WorkLine v-if="!isShort" :slim="isBench" />
      </div>
      <NotTaken />
      <p v-if="state === 'unreachable'" v-say class="trouble">
        {{ trouble }}. Changes are kept here and saved once it is back.
      </p>
      <p v-if="away" v-say class="notice" data-test="put-away">
        {{ away === 'bin' ? 'It is deleted.' : 'It is in the archive, with the plan that it had.' }}
        To change it, take it back.
        <span v-if="stays"> It stays there: {{ stays }}.</span>
      </p>
      <p v-if="left && closed" class="notice" data-test="left">
        It left on {{ dayAndYear(draft.sending.handed_over) }}, and its plan is sealed<template
          v-if="kept?.earlier"
          >: it was worked out by an earlier Hummock (plan edition {{ kept.edition }})</template
        >. To change it, take back at
        <RouterLink :to="{ name: 'send', params: { id } }">Send</RouterLink> that it was handed over.
      </p>
      <p v-if="lost" v-say class="notice" data-test="record-lost">
        Its plan can’t be shown: its handover record is {{ lost }}. The log entry is still here, and a backup
        may have the record.
      </p>
      <div v-if="refusals.length > 0" v-say class="notice" data-test="no-plan">
        <strong>There is no plan for this as it is.</strong> Everything typed is kept, and the rest can be
        changed.
        <ul>
          <li v-for="{ field, message } in refusals" :key="field">{{ message }}</li>
        </ul>
      </div>
      <ConflictNotice />
      <fieldset class="stage" :disabled="away !== undefined || (left && closed)">
        <AsFarAsShown :key="String(router.currentRoute.value.name)" :earlier="kept?.earlier === true">
          <RouterView />
        </AsFarAsShown>
      </fieldset>
      <FootBar :over="settled" />
    </template>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

fieldset {
  min-width: 0;
  margin: 0;
  padding: 0;
  border: 0;
}
.notice ul {
  margin: 4px 0 0;
}
.title {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 16px;
}
h1 {
  margin: 0;
  font-size: var(--type-title);
  overflow-wrap: anywhere;
}
.about {
  overflow-wrap: anywhere;
}
@include at.wider-than-tablet {
  .narrow {
    display: grid;
    /* The stops keep their names; the title gives way. */
    grid-template-columns: minmax(max-content, 1fr) minmax(0, auto);
    gap: 0 20px;
    align-items: center;
    margin-bottom: 8px;
    border-bottom: 2px solid var(--peat);
  }
  .narrow .title {
    flex-wrap: nowrap;
    align-items: center;
    order: 1;
    min-width: 0;
    gap: 12px;
  }
  .narrow h1 {
    min-width: 0;
    max-width: 200px;
    overflow: hidden;
    font-size: var(--type-strong);
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .narrow .about {
    display: none;
  }
}
.trouble {
  padding: 8px 12px;
  border-left: 4px solid var(--amber-moss);
  background: var(--paper);
}
</style>
