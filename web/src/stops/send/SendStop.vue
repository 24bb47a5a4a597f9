<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';

import { useStudio } from '@/api/useStudio';
import { ask } from '@/asking/ask';
import { useCountries } from '@/countries/useCountries';
import { useNextStep } from '@/frame/foot';
import type { Said } from '@/frame/foot';
import type { Leaving } from '@/api/types';
import { counted } from '@/words/grammar';
import DraftField from '@/parts/DraftField.vue';
import { vSay } from '@/said/say';
import { useShipment } from '@/shipment/useShipment';
import { dayAndYear } from '@/units/show';

import BookingPanel from './BookingPanel.vue';
import BuyerMessage from './BuyerMessage.vue';
import LeavingChecks from './LeavingChecks.vue';
import PaperLinks from './PaperLinks.vue';
import { useLeaving } from './useLeaving';

/** The parcel leaves: both addresses, what is looked at before, its booking, its papers, and handing it over. */
const { id, draft, stored, summary, save } = useShipment();
const { studio } = useStudio();
const { leaving, away, busy, trouble, book, cancel } = useLeaving();

const { all } = useCountries();
const countries = computed(() => all.value.map(({ code, name }) => ({ value: code, text: name })));
const home = computed(() => {
  const own = leaving.value?.from.at(-1) ?? '';
  return own ? `as the studio: ${own.charAt(0)}${own.slice(1).toLowerCase()}` : 'as the studio';
});
/** Whether something of the list is still to be done or confirmed. */
const open = computed(() => leaving.value?.checks.some(({ done, key }) => !done && key !== 'cover') === true);
/** A Stop of the plan: nothing leaves before it is answered. */
const stopped = computed(() => leaving.value?.checks.find(({ key, done }) => key === 'answered' && !done));
const read = computed(
  () => leaving.value !== undefined && draft.sending.addresses_read === leaving.value.print,
);

function confirm(key: string, so: boolean): void {
  if (key === 'addresses') draft.sending.addresses_read = so ? (leaving.value?.print ?? '') : '';
  if (key === 'marked') draft.sending.marked = so;
  void save();
}
function handOver(): void {
  draft.sending.handed_over = studio.value?.today ?? '';
  void save();
}
async function takeBack(): Promise<void> {
  const goOn = await ask({
    title: 'Take it back to work?',
    says: 'It will be planned and priced again with today’s house rules. The plan it left with stays on record.',
    stay: 'Keep it sealed',
    goOn: 'Take it back',
  });
  if (!goOn) return;
  draft.sending.handed_over = '';
  void save();
}
function noNumber(): void {
  draft.sending.no_number = true;
  void save();
}
/** The day that it is to be booked for. */
const on = ref('');
const carrier = computed(() => (summary.value?.best?.chosen ? summary.value.best.carrier : undefined));
const booking = computed(() => {
  const known = leaving.value?.booking;
  return known && ['asked', 'booked', 'cancelling'].includes(known.state) ? known : undefined;
});
/** The studio's own address, and from there back to this parcel. */
const ownAddress = { path: '/studio/name', query: { parcel: id } };
const to = (name: string) => ({ name, params: { id } });

/** What a check that is open leads to, in the order in which they are done; those that lead nowhere are only told. */
function leads(key: string, now: Leaving): Said | undefined {
  switch (key) {
    case 'service':
      return { verb: { text: 'Choose a service', to: to('price') } };
    case 'packed':
      return { verb: { text: 'Pack it', to: to('pack') } };
    case 'weighed':
      return { verb: { text: 'Weigh it', to: to('weigh') } };
    case 'addresses':
      return {
        verb: { text: 'Both addresses are right', press: () => confirm('addresses', true) },
        hint: { says: 'Read both addresses, letter by letter.' },
      };
    case 'protected':
      return {
        verb: { text: 'Look for protected materials', press: lookAtBorder },
        hint: { says: 'It crosses a border.' },
      };
    case 'tracking':
      return number(now);
    case 'marked':
      return {
        verb: { text: 'Label and marks are on it', press: () => confirm('marked', true) },
        ...labelOf(now),
      };
    default:
      return undefined;
  }
}
function lookAtBorder(): void {
  document.querySelector<HTMLElement>('[name="sending.protected"]')?.focus();
}
function number(now: Leaving): Said {
  const asking = busy.value ? 'Asking the carrier…' : undefined;
  const waits = booking.value;
  if (waits?.state === 'asked')
    return {
      verb: { text: asking ?? 'Ask the carrier again', press: () => book(waits.on), disabled: busy.value },
      hint: { says: 'No clear answer yet. Hummock asks again automatically.' },
    };
  if (waits) return { verb: { text: 'Waiting for the carrier', disabled: true } };
  if (now.bookable)
    return {
      verb: {
        text: asking ?? `Book with ${carrier.value ?? 'the carrier'}`,
        press: () => book(on.value),
        disabled: busy.value || !on.value,
      },
    };
  return {
    verb: { text: 'It has no number', press: noNumber },
    hint: { says: 'Type the carrier’s tracking number above, or confirm that there is none.' },
  };
}
/** The label, or both addresses as a sheet where no number stands for one. */
function labelOf(now: Leaving): Pick<Said, 'hint'> {
  const paper = (['label', 'addresses'] as const).find((one) => now.papers.includes(one));
  if (!paper) return {};
  const way = {
    text: paper === 'label' ? 'Print the label' : 'Print the address sheet',
    paper: `/api/v1/shipments/${id}/papers/${paper}`,
  };
  return { hint: { says: 'Stick it on the largest side.', way } };
}
useNextStep((): Said | undefined => {
  const now = leaving.value;
  if (!now) return undefined;
  if (draft.sending.handed_over)
    return {
      verb: { text: 'Follow it', to: to('after') },
      hint: { says: `Handed over on ${dayAndYear(draft.sending.handed_over)}.` },
    };
  if (stopped.value) return { verb: { text: 'Handed over', disabled: true } };
  const handed = { text: 'Handed over', press: handOver };
  const [gap, ...gaps] = now.gaps;
  if (gap)
    return {
      verb: gap.field.startsWith('sender.')
        ? { text: 'Complete your address', to: ownAddress }
        : { text: 'Complete the address', to: to('measure') },
      hint: {
        level: 'stop',
        says: `${gap.says}${gaps.length > 0 ? `, and ${counted(gaps.length, 'thing')} more` : ''}.`,
      },
    };
  for (const check of now.checks.filter(({ done }) => !done)) {
    const said = leads(check.key, now);
    if (said) return said;
  }
  return { verb: handed };
});
</script>

<template>
  <div v-if="leaving" class="two-columns">
    <div>
      <section aria-label="Where it goes" class="panel first">
        <div class="heading-row"><h2>Where it goes</h2></div>
        <div class="ends">
          <div>
            <h3 class="soft">From</h3>
            <address data-test="from">
              <span v-for="line in leaving.from" :key="line">{{ line }}</span>
            </address>
            <RouterLink :to="ownAddress" class="no-print">Change your address</RouterLink>
          </div>
          <div>
            <h3 class="soft">To</h3>
            <address class="to" data-test="to">
              <span v-for="line in leaving.to" :key="line">{{ line }}</span>
            </address>
            <RouterLink :to="{ name: 'measure', params: { id } }" class="no-print">Change it</RouterLink>
          </div>
        </div>
        <ul v-if="leaving.gaps.length > 0" class="gaps" data-test="gaps">
          <li v-for="gap in leaving.gaps" :key="gap.field">{{ gap.says }}</li>
        </ul>
        <p v-else-if="!read" class="soft">Read both, letter by letter.</p>
        <p v-else class="done">Both addresses are checked.</p>
        <template v-if="leaving.customs">
          <h3>At the border</h3>
          <div class="pair">
            <DraftField path="sending.protected" empty="Not checked yet" />
            <DraftField v-if="draft.sending.protected === 'some'" path="sending.protected_what" />
            <DraftField path="sending.origin" :codes="countries" :empty="home" />
          </div>
          <DraftField path="gift" />
          <p class="soft">
            A gift is what the buyer did not pay for: the customs paper then says gift in the place of sale. A
            sale that is called a gift is a false declaration. Cards and gifts that you enclose have lines of
            their own.
          </p>
        </template>
      </section>
      <section aria-label="Booking" class="panel third">
        <BookingPanel
          v-model:on="on"
          :leaving="leaving"
          :busy="busy"
          :trouble="trouble"
          :left="stored?.place === 'sent'"
          @book="book(on)"
          @cancel="cancel"
        />
      </section>
      <section aria-label="Papers" class="panel last">
        <PaperLinks :id="id" :papers="leaving.papers" :lacking="leaving.letters_lacking" />
      </section>
    </div>
    <div>
      <section aria-label="Before it leaves" class="panel second">
        <div class="heading-row"><h2>Before it leaves</h2></div>
        <LeavingChecks :checks="leaving.checks" @confirm="confirm" />
      </section>
      <section aria-label="Handing over" class="panel fourth">
        <div class="heading-row"><h2>Handing over</h2></div>
        <template v-if="draft.sending.handed_over">
          <p class="done" data-test="handed">
            Handed over on {{ dayAndYear(draft.sending.handed_over) }}. Its plan is sealed.
          </p>
          <DraftField path="sending.receipt" />
          <div class="buttons no-print">
            <BButton variant="outline-secondary" @click="takeBack">Take back: it is still here</BButton>
          </div>
        </template>
        <template v-else>
          <BButton
            v-if="open && !stopped"
            size="sm"
            variant="outline-secondary"
            class="no-print"
            @click="handOver"
          >
            Handed over all the same
          </BButton>
          <p class="soft">
            <RouterLink class="alone" to="/leaving">Outgoing today, and the list to sign</RouterLink>
          </p>
        </template>
      </section>
      <section aria-label="Telling the buyer" class="panel last">
        <BuyerMessage v-if="leaving.message" :message="leaving.message" />
      </section>
    </div>
  </div>
  <p v-else-if="away" v-say class="soft">Outgoing parcels can’t be looked up just now. Trying again.</p>
  <p v-else class="soft">Looking it up</p>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.panel {
  padding: 12px 16px 16px;
}
.ends {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.2fr);
  gap: 8px 16px;
  margin-bottom: 12px;
}
h3 {
  margin: 8px 0 4px;
  font-size: var(--type-text);
}
address {
  display: grid;
  margin: 0 0 4px;
  font-style: normal;
  overflow-wrap: anywhere;
}
.to {
  font-size: var(--type-lead);
  font-weight: 600;
  line-height: 1.3;
}
.gaps {
  margin: 0;
  padding-left: 20px;
  color: var(--rowan);
}
.done {
  margin: 0 0 8px;
  padding: 4px 10px;
  border-left: 4px solid var(--moss);
}
.pair {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(200px, 100%), 1fr));
  gap: 0 12px;
}
@include at.phone {
  .ends {
    grid-template-columns: minmax(0, 1fr);
  }
  .ends > div:last-child {
    order: -1;
  }
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
