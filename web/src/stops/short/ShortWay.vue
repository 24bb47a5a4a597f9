<script setup lang="ts">
import { computed, nextTick, onMounted, ref, useTemplateRef } from 'vue';
import { useRouter } from 'vue-router';

import AddressFields from '@/countries/AddressFields.vue';
import CountryField from '@/countries/CountryField.vue';
import RollDrawing from '@/drawing/RollDrawing.vue';
import WholeCut from '@/drawing/WholeCut.vue';
import { useNextStep } from '@/frame/foot';
import type { Said } from '@/frame/foot';
import MoneyStrip from '@/frame/MoneyStrip.vue';
import UnpricedNote from '@/frame/UnpricedNote.vue';
import { count, counted, oneIn } from '@/words/grammar';
import DraftField from '@/parts/DraftField.vue';
import TextField from '@/parts/TextField.vue';
import { vSay } from '@/said/say';
import { fieldInSentence } from '@/shipment/fields';
import { providePiece, FIRST } from '@/shipment/usePiece';
import { useShipment } from '@/shipment/useShipment';
import { kilograms } from '@/units/show';
import { ENCLOSURES } from '@/words/vocabulary';
import { useUnits } from '@/units/useUnits';

import ShortLine from '../box/ShortLine.vue';
import { useTakes } from '../box/useTakes';
import CureNote from '../measure/CureNote.vue';
import EnclosureFields from '../measure/EnclosureFields.vue';
import { enclosedIn } from '../measure/enclosed';
import PasteAddress from '../measure/PasteAddress.vue';
import SizeFields from '../measure/SizeFields.vue';
import { sheetOf } from '../pack/sheet';

/** A parcel on one page: a few fields, and beside them what follows. Whoever wants more opens the eight stops. */
const { id, draft, errors, money, plan, summary, missing, fingerprint, stored, save } = useShipment();
providePiece(ref(FIRST));
const units = useUnits();
const router = useRouter();
const { data: takes, short, named, counted: told } = useTakes();
const form = useTemplateRef<HTMLFormElement>('form');

/** Begun from a like piece: where it goes is all that is missing. */
const onlyWhere = Boolean(draft.piece.construction && draft.piece.width && !draft.buyer.name);
const best = computed(() => summary.value?.best ?? undefined);
const several = computed(() => Object.keys(draft.others).length > 0);
const mirror = computed(() => draft.piece.construction === 'mirror');
const rolled = computed(() => plan.value?.carriage === 'rolled');
const barred = computed(() => draft.piece.construction === 'stretched_canvas');
const lacking = computed(() => missing.value.map(fieldInSentence).join(', '));
const pack = computed(() => (plan.value?.began?.preset ? `The ${plan.value.began.preset} pack` : 'A pack'));
/** What goes in besides the piece, named in one line. */
const goesIn = computed(() => {
  const named = enclosedIn(plan.value).map(({ name, kind }) => name || ENCLOSURES[kind].toLowerCase());
  return named.length > 0 ? named.join(', ') : 'nothing';
});
const lines = computed(() => takes.value?.lines ?? []);
const needs = computed(() => {
  const all = counted(lines.value.length, 'material');
  const less = short.value.length;
  return less === 0 ? `${all}, all there` : `${all}, ${count(less)} short`;
});

/** Takes plan, box and service as they stand here. */
async function packIt(): Promise<void> {
  Object.assign(draft.settled, { guard: fingerprint.value, box: fingerprint.value });
  draft.service ||= best.value?.id ?? '';
  await save();
  await router.push({ name: 'pack', params: { id } });
}
useNextStep((): Said => ({
  showsMoney: true,
  // A Stop has its own way out beside it.
  verb: { text: 'Pack it', press: packIt, disabled: !plan.value || Boolean(summary.value?.stop) },
  ...(stored.value && plan.value ? { other: { text: 'Print the pack sheet', paper: sheetOf(id) } } : {}),
}));

// Whoever begins a parcel types at once.
onMounted(async () => {
  await nextTick();
  if (!stored.value && !draft.title) form.value?.querySelector('select')?.focus();
});
</script>

<template>
  <form ref="form" class="short-way" @submit.prevent>
    <section class="fields" aria-label="The parcel">
      <div class="pair">
        <DraftField path="piece.construction" empty="Choose" />
        <DraftField path="title" label="Title" placeholder="can follow" />
      </div>
      <SizeFields short />
      <div v-if="!mirror" class="pair">
        <DraftField path="piece.medium" empty="Choose" />
        <DraftField path="piece.finished" />
      </div>
      <CureNote />
      <div class="triple">
        <DraftField v-if="!several" path="value" :label="`Worth, in ${money}`" />
        <CountryField
          v-model="draft.buyer.country"
          label="Goes to"
          name="buyer.country"
          :error="errors['buyer.country']"
        />
        <TextField
          v-model="draft.buyer.postcode"
          label="Postcode"
          name="buyer.postcode"
          placeholder="can follow"
          :error="errors['buyer.postcode']"
        />
      </div>
      <PasteAddress :open="onlyWhere" />
      <details>
        <summary>The address line by line, and the day it is promised for</summary>
        <AddressFields
          v-model="draft.buyer"
          at="buyer"
          :errors="errors"
          called="Buyer"
          :without="['country', 'postcode']"
        />
        <div class="pair"><DraftField path="promised" /></div>
      </details>
      <details class="goes-in" data-test="goes-in">
        <summary>Enclosures: {{ goesIn }}</summary>
        <EnclosureFields />
      </details>
      <p class="more">
        <RouterLink
          :to="{ name: plan ? 'guard' : 'measure', params: { id } }"
          class="btn btn-outline-secondary"
          >Change something</RouterLink
        >
        <RouterLink :to="{ name: 'measure', params: { id } }">More about the piece</RouterLink>
        <span class="soft">frame, surface, hardware, several in one box</span>
      </p>
    </section>
    <section class="follows" aria-label="Results" data-test="follows">
      <template v-if="plan && summary">
        <div class="panel drawn">
          <RollDrawing v-if="rolled" :plan="plan" />
          <WholeCut
            v-else
            :plan="plan"
            cut="up"
            :times="1"
            :barred="barred"
            @open="() => router.push({ name: 'guard', params: { id } })"
          />
        </div>
        <p class="says" data-test="says">
          <strong>{{ pack }}</strong>: {{ summary.minutes.toFixed(0) }} minutes<template v-if="summary.one_in"
            >, about {{ oneIn(summary.one_in.about) }} arrive damaged</template
          >.
          <span class="soft figure outside">
            {{ units.size(summary.outside.across_mm, summary.outside.up_mm, summary.outside.through_mm) }},
            {{ kilograms(summary.weight.mass_g) }} ± {{ kilograms(summary.weight.plus_minus_g) }}
          </span>
        </p>
        <MoneyStrip v-if="summary.cost" :cost="summary.cost" />
        <UnpricedNote v-if="plan.unpriced?.length" :materials="plan.unpriced" />
        <p v-if="best" class="soft by">
          With {{ best.carrier }} {{ best.service }}, {{ best.days_from }} to {{ best.days_to }} days.
        </p>
        <p v-else-if="draft.buyer.country && summary.asked" class="soft by">
          No service takes this parcel.
          <RouterLink :to="{ name: 'price', params: { id } }">See why</RouterLink>
        </p>
        <p v-else-if="draft.buyer.country" class="soft by">
          No carrier’s price yet.
          <RouterLink v-if="stored" :to="{ name: 'carriers', query: { parcel: id } }"
            >Add a carrier</RouterLink
          >
        </p>
        <p v-else class="soft by">The carrier’s price needs the country.</p>
        <div v-if="lines.length > 0" class="takes">
          <h2>Needs {{ needs }}</h2>
          <ul class="chips" data-test="takes">
            <li v-for="(line, at) in lines" :key="at" :class="{ lacks: line.short > 0 }">
              {{ named(line) }} <strong class="figure">{{ told(line.needs, line) }}</strong><template
                v-if="line.short > 0"
                >, {{ told(line.short, line) }} short</template
              >
            </li>
          </ul>
          <ul v-if="short.length > 0" v-say class="short">
            <ShortLine v-for="(line, at) in short" :key="at" :line="line" />
          </ul>
        </div>
      </template>
      <p v-else class="soft nothing">
        {{
          lacking
            ? `The parcel is drawn here once you have said ${lacking}.`
            : 'The parcel is drawn here as you type.'
        }}
      </p>
    </section>
  </form>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.short-way {
  margin-top: 8px;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.4fr);
  gap: 16px 32px;
  align-items: start;
}
.pair {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0 12px;
}
.triple {
  display: grid;
  grid-template-columns: minmax(0, 0.9fr) minmax(0, 1.2fr) minmax(0, 0.9fr);
  gap: 0 12px;
}
summary {
  min-height: 44px;
  padding-top: 10px;
  color: var(--water);
  cursor: pointer;
  font-weight: 600;
}
.more {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 12px;
  margin: 0;
}
.more a {
  display: inline-flex;
  min-height: 44px;
  align-items: center;
  font-weight: 600;
}
.drawn {
  margin-bottom: 8px;
}
.drawn :deep(svg) {
  display: block;
  width: 100%;
  max-height: 210px;
}
.says {
  margin: 0 0 4px;
  font-size: var(--type-lead);
}
.outside {
  display: block;
  font-size: var(--type-text);
}
.by {
  margin: 0 0 8px;
}
h2 {
  margin: 8px 0 6px;
  font-size: var(--type-strong);
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 0 0 8px;
  padding: 0;
  list-style: none;
}
.chips li {
  padding: 4px 10px;
  border: 1px solid var(--sedge);
  border-radius: var(--corner);
  background: var(--paper);
}
.chips .lacks {
  border-color: var(--amber-moss);
  color: var(--amber-moss);
}
.short {
  margin: 6px 0;
  padding: 0;
  list-style: none;
}
.nothing {
  display: grid;
  min-height: 220px;
  place-items: center;
  margin: 0;
  padding: 24px;
  border: 1px dashed var(--peat-soft);
  text-align: center;
}
@include at.tablet {
  .short-way {
    margin-top: 8px;
    grid-template-columns: minmax(0, 1fr);
  }
}
@include at.phone {
  .pair,
  .triple {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
  .triple > :first-child {
    grid-column: 1 / -1;
  }
}
</style>
