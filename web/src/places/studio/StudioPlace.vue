<script setup lang="ts">
import { useLeaveGuard } from '@/asking/useLeaveGuard';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormCheckboxGroup } from 'bootstrap-vue-next/components/BFormCheckbox';
import { computed, watch } from 'vue';
import { useRouter } from 'vue-router';

import { useStudio } from '@/api/useStudio';
import AddressFields from '@/countries/AddressFields.vue';
import { useCountries } from '@/countries/useCountries';
import BackToParcel from '@/parts/BackToParcel.vue';
import ChoiceField from '@/parts/ChoiceField.vue';
import TextField from '@/parts/TextField.vue';
import { vSay } from '@/said/say';

import MoneyFields from './MoneyFields.vue';
import SentCountries from './SentCountries.vue';
import StudioShelf from './StudioShelf.vue';
import { useSettings } from './useSettings';
import type { GoesIn } from './useSettings';
import StudioBackup from './StudioBackup.vue';
import StudioPapers from './StudioPapers.vue';
import StudioTablets from './StudioTablets.vue';
import {
  DATES,
  DECIMALS,
  FRACTIONS,
  LABELS,
  LENGTHS,
  MASSES,
  NUMBERS,
  OF_SETTINGS,
  PAPERS,
  PRICES,
  SECTIONS,
} from './words';
import type { Section } from './words';

/** Whose studio it is, where it is, where it sends to and how it writes; and the same five questions before it was ever said. */
const { section, begins = false } = defineProps<{
  section: Section;
  /** It is still to begin, beside the one that is shown. */
  begins?: boolean;
}>();
const { kept, typed, goesIn, changed, changedUnder, errors, trouble, busy, keep } = useSettings(begins);
const { studio } = useStudio();
const { of } = useCountries();
const router = useRouter();

const isNew = computed(() => begins || (studio.value !== undefined && !studio.value.set_up));
const where = computed(() => of(typed.sender.country));
// The name on the label is the studio's until somebody says otherwise.
watch(
  () => typed.name,
  (name, before) => {
    if (typed.sender.name === before) typed.sender.name = name;
  },
);
/** Whoever writes letters on Letter measures in inches, most often; it is a beginning, and changed below. */
watch(
  () => typed.sender.country,
  (country) => {
    if (!isNew.value || !country) return;
    if (typed.countries.length === 0) typed.countries.push({ code: country, route: null, wet_months: [] });
    const known = of(country);
    if (!known) return;
    if (known.currency) typed.currency = known.currency;
    typed.paper = known.letter ? 'letter' : 'a4';
    typed.label = known.letter ? '4x6' : '100x150';
    const inches = country === 'US';
    typed.length = inches ? 'in' : 'mm';
    typed.mass = inches ? 'lb' : 'kg';
    typed.date_order = inches ? 'mdy' : 'dmy';
  },
);

/** A part of the studio; before it is set up all that is asked stands on one page. */
const shows = (part: Section) => isNew.value || part === section;
/** The other parts under which something is changed: they are kept together. */
const elsewhere = computed(() =>
  SECTIONS.filter(({ key }) => key !== section && changedUnder.value.includes(key))
    .map(({ name }) => name)
    .join(', '),
);
const zones = [
  { value: '', text: 'the machine that Hummock runs on' },
  ...Intl.supportedValuesOf('timeZone').map((zone) => ({ value: zone, text: zone.replaceAll('_', ' ') })),
];
async function save(): Promise<void> {
  const first = isNew.value;
  // The browser knows where it is.
  if (first) typed.time_zone ||= Intl.DateTimeFormat().resolvedOptions().timeZone;
  if (!(await keep())) return;
  // Nothing of the studio that was shown stays in the page.
  if (begins) window.location.assign('/');
  else if (first) await router.push('/');
}
const GOES_IN: { value: GoesIn; text: string }[] = [
  { value: 'card', text: 'A card' },
  { value: 'certificate', text: 'A certificate' },
  { value: 'note', text: 'A thank-you note' },
];
useLeaveGuard(() => (changed.value && !busy.value ? 'the changed studio' : undefined), true);
</script>

<template>
  <div class="page" :class="{ parted: !isNew }">
    <nav v-if="!isNew" class="no-print" aria-label="Settings">
      <RouterLink
        v-for="part in SECTIONS"
        :key="part.key"
        :to="`/studio/${part.key}`"
        :class="{ here: part.key === section }"
        :aria-current="part.key === section ? 'page' : undefined"
        >{{ part.name }}</RouterLink
      >
    </nav>
    <div>
      <h1>{{ isNew ? 'Set up your studio' : 'Settings' }}</h1>
      <p v-if="isNew" class="soft">
        Six short questions. Each can be left open and answered later; with the first two the first parcel can
        be planned.<template v-if="begins">
          Your studio begins with the button below; until then this one stays open.</template
        >
      </p>
      <template v-if="kept">
        <section v-if="shows('name')" aria-label="Name and address">
          <h2><span v-if="isNew" class="number">1</span> Name and address</h2>
          <TextField v-model="typed.name" label="The studio is called" name="name" :error="errors.name" />
          <AddressFields
            v-model="typed.sender"
            at="sender"
            :errors="errors"
            called="Name on the label"
            home
          />
        </section>
        <section v-if="shows('countries')" aria-label="Countries that you send to">
          <h2><span v-if="isNew" class="number">2</span> Countries that you send to</h2>
          <p class="soft">
            They come first wherever a country is chosen. A parcel can go to any other country too.
          </p>
          <SentCountries v-model="typed.countries" :errors="errors" :home="typed.sender.country" />
        </section>
        <section v-if="shows('money')" aria-label="Money">
          <h2><span v-if="isNew" class="number">3</span> Money</h2>
          <MoneyFields
            v-model:currency="typed.currency"
            v-model:rate="typed.rate"
            :now="kept.currency"
            :errors="errors"
            :is-new="isNew"
            :begins="begins"
          />
          <template v-if="!isNew">
            <h2>Tax</h2>
            <div class="fields">
              <ChoiceField
                v-model="typed.tax.prices"
                label="Prices of materials and work are"
                name="tax.prices"
                :choices="PRICES"
              />
              <TextField
                v-for="{ key, label } in NUMBERS"
                :key="key"
                v-model="typed.tax[key]"
                :label="label"
                :name="`tax.${key}`"
                :error="errors[`tax.${key}`]"
              />
            </div>
            <p class="soft">The numbers stand on the paper for customs, where you have them.</p>
          </template>
        </section>
        <section v-if="shows('ruler')" aria-label="Ruler and scale">
          <h2><span v-if="isNew" class="number">4</span> Ruler and scale</h2>
          <p v-if="isNew && where" class="soft">As most people in {{ where.name }} have them.</p>
          <div class="fields">
            <ChoiceField v-model="typed.length" label="Lengths" name="length" :choices="LENGTHS" />
            <ChoiceField
              v-if="typed.length === 'in'"
              v-model="typed.fraction"
              label="Inches"
              name="fraction"
              :choices="FRACTIONS"
              :error="errors.fraction"
            />
            <ChoiceField v-model="typed.mass" label="Weights" name="mass" :choices="MASSES" />
            <ChoiceField v-model="typed.decimal" label="Numbers" name="decimal" :choices="DECIMALS" />
            <ChoiceField v-model="typed.date_order" label="Dates" name="date_order" :choices="DATES" />
            <ChoiceField v-model="typed.paper" label="Printed on" name="paper" :choices="PAPERS" />
            <ChoiceField v-model="typed.label" label="Labels" name="label" :choices="LABELS" />
            <ChoiceField
              v-if="!isNew"
              v-model="typed.time_zone"
              label="Its day begins as in"
              name="time_zone"
              :choices="zones"
              :error="errors.time_zone"
            />
          </div>
        </section>
        <section v-if="isNew" aria-label="A carrier">
          <h2><span class="number">5</span> A carrier</h2>
          <p class="soft">
            Add a carrier’s price list under Carriers once you have one. Until then, type a quoted price at
            Price. Everything else works without it.
          </p>
        </section>
        <section v-if="isNew" aria-label="Enclosures in every parcel">
          <h2><span class="number">6</span> What goes into every parcel?</h2>
          <BFormCheckboxGroup
            v-model="goesIn"
            :options="GOES_IN"
            name="goes-in"
            aria-label="Enclosures in every parcel"
          />
          <p class="soft">
            Leave all open for nothing. Each counts in size and weight, and Pack asks for it before it is
            covered.
          </p>
        </section>
        <template v-if="isNew || OF_SETTINGS.includes(section)">
          <p v-if="trouble" v-say class="stop" data-test="settings-trouble">{{ trouble }}.</p>
          <p v-if="elsewhere" class="mind">Something is changed under {{ elsewhere }} too.</p>
          <p class="keep">
            <BButton
              variant="primary"
              :disabled="(!changed && !begins) || busy"
              data-test="keep-settings"
              @click="save"
            >
              {{ isNew ? 'Begin' : 'Save settings' }}
            </BButton>
            <RouterLink v-if="isNew" to="/" class="btn">Later</RouterLink>
            <BackToParcel v-else-if="!changed" to="send" />
          </p>
        </template>
        <StudioPapers v-if="!isNew && section === 'papers'" />
        <StudioTablets v-if="!isNew && section === 'tablets'" />
        <StudioBackup v-if="!isNew && section === 'backup'" />
        <StudioShelf v-if="shows('name') && !begins" />
      </template>
      <p v-else class="soft">Reading it</p>
    </div>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.page {
  max-width: 760px;
}
.page.parted {
  display: grid;
  max-width: 1120px;
  grid-template-columns: 220px minmax(0, 820px);
  gap: 0 40px;
  align-items: start;
}
nav {
  display: grid;
  margin-top: 52px;
}
nav a {
  min-height: 44px;
  padding: 10px 12px;
  border-left: 4px solid transparent;
  color: var(--peat);
  text-decoration: none;
}
nav .here {
  border-color: var(--heather);
  background: var(--paper);
  font-weight: 600;
}
h1 {
  margin: 4px 0;
  font-size: var(--type-title);
}
h2 {
  margin: 20px 0 4px;
  font-size: var(--type-lead);
}
.number {
  display: inline-block;
  min-width: 1.2em;
  color: var(--moss);
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(200px, 100%), 1fr));
  gap: 0 12px;
}
.keep {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  margin-top: 12px;
}
.stop {
  color: var(--rowan);
}
@include at.tablet {
  .page.parted {
    grid-template-columns: minmax(0, 1fr);
  }
  nav {
    display: flex;
    flex-wrap: wrap;
    margin-top: 0;
  }
  nav a {
    border-bottom: 4px solid transparent;
    border-left: 0;
  }
}
</style>
