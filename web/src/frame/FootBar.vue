<script setup lang="ts">
import ChevronDown from '~icons/tabler/chevron-down';
import ChevronUp from '~icons/tabler/chevron-up';

import { onClickOutside, useMediaQuery } from '@vueuse/core';
import { computed, ref, useTemplateRef } from 'vue';
import { useRoute } from 'vue-router';

import type { Finding } from '@/api/types';
import { useEscape } from '@/keys/useKeys';
import SumOf from '@/parts/SumOf.vue';
import { fieldInSentence } from '@/shipment/fields';
import { useShipment } from '@/shipment/useShipment';
import { money } from '@/units/show';

import ActButton from './ActButton.vue';
import type { Act, Hint, Said } from './foot';
import { useFoot } from './foot';
import { useLastChange } from './lastChange';
import type { PartName } from './money';
import MoneyBar from './MoneyBar.vue';
import TallySheet from './TallySheet.vue';
import { besides, firstMatter } from '@/words/matters';

/** The foot of a shipment: what is in the way of it, what it costs, and the one verb that goes on. */
const { id, summary, plan, missing, refusals, left, against, choose } = useShipment();
const { over } = defineProps<{
  /** Takes the place of what the page says. */
  over?: Said | undefined;
}>();
const route = useRoute();
const foot = useFoot();
const said = computed(() => over ?? foot.said.value);

/** A sentence of more letters may take more lines than the foot has. */
const LONG = 60;

const open = ref(false);
const part = ref<PartName>();
const printing = useMediaQuery('print');
function pressed(key: PartName): void {
  open.value = !open.value || part.value !== key;
  part.value = open.value ? key : undefined;
}
function close(): void {
  open.value = false;
}
const root = useTemplateRef<HTMLElement>('root');
useEscape(close);
onClickOutside(root, close);

const cost = computed(() => summary.value?.cost ?? undefined);

/** Its way out, where that is one press. */
function helpFor({ code, remedy }: Finding): Act | undefined {
  if (code === 'hand-over' || code === 'no-sheet-for-blank')
    return { text: 'A brief for a crating service', to: { name: 'brief', params: { id } } };
  if (code === 'cure' && route.name !== 'short' && route.name !== 'measure')
    return { text: 'To Measure', to: { name: 'measure', params: { id } } };
  return remedy ? { text: remedy.label, press: () => choose(remedy.choices) } : undefined;
}
/** What is in the way, most pressing first: the server's list, or why there is no plan to list anything of. */
const inTheWay = computed((): (Hint & { more: number }) | undefined => {
  if (over || left.value) return undefined;
  if (refusals.value.length > 0)
    return { level: 'stop', says: 'Stop: no plan is possible. See above.', more: 0 };
  if (!plan.value) {
    const lacking = missing.value.map(fieldInSentence).join(', ');
    return lacking ? { level: 'note', says: `Still needed: ${lacking}.`, more: 0 } : undefined;
  }
  const first = firstMatter(against.value);
  if (!first) return undefined;
  const found = plan.value.findings.find(({ code }) => code === against.value[0]?.code);
  const way = found && (first.level === 'stop' || first.more === 0) ? helpFor(found) : undefined;
  return { ...first, ...(way ? { way } : {}) };
});
const hint = computed((): Hint | undefined => {
  if (said.value?.hint) return said.value.hint;
  return plan.value && !inTheWay.value && !over && !left.value ? { says: 'Ready', level: 'note' } : undefined;
});
/** What answers it, and what else is in the way, stands in the sheet. */
const helps = computed(() => plan.value !== undefined && inTheWay.value?.level !== 'note');
/** A Stop has to be answered before the verb leads on. */
const stopped = computed(() => inTheWay.value?.level === 'stop' || hint.value?.level === 'stop');

const { by, better } = useLastChange({
  value: () => (cost.value ? Number(cost.value.to_send.amount) : undefined),
  words: (by) => `${by < 0 ? '−' : '+'}${Math.abs(by).toFixed(2)}`,
  says: () => `to send ${cost.value ? money(cost.value.to_send) : ''}`,
});
</script>

<template>
  <aside ref="root" class="tally" :class="{ open }" aria-label="Foot">
    <div v-show="open" id="tally-sheet" class="opened">
      <TallySheet v-model:part="part" :told="open || printing" />
    </div>
    <div class="foot no-print">
      <div class="says">
        <div v-if="inTheWay" class="against" :class="inTheWay.level" data-test="against">
          <!-- What is longer than the foot is high scrolls, by key too. -->
          <p :tabindex="inTheWay.says.length > LONG ? 0 : undefined">
            {{ inTheWay.says }}
            <span v-if="inTheWay.more > 0" class="more">{{ besides(inTheWay.more) }}</span>
          </p>
          <button v-if="helps" type="button" class="plain" @click="open = !open">Show options</button>
          <ActButton v-if="inTheWay.way" :act="inTheWay.way" size="sm" />
        </div>
        <div v-if="hint" class="against" :class="hint.level ?? 'note'" data-test="hint">
          <p>{{ hint.says }}</p>
          <ActButton v-if="hint.way" :act="hint.way" size="sm" />
        </div>
      </div>
      <div v-if="summary" class="money">
        <button
          type="button"
          class="figures figure"
          :aria-expanded="open"
          aria-controls="tally-sheet"
          @click="open = !open"
        >
          <span v-if="cost" class="send"
            ><SumOf of="to_send" :sum="cost.to_send" /> <small>to send</small></span
          >
          <span v-else class="send">Figures</span>
          <span v-if="by" class="by" :class="{ better }">{{ by }}</span>
          <component :is="open ? ChevronDown : ChevronUp" aria-hidden="true" />
          <span class="visually-hidden">, all figures</span>
        </button>
        <MoneyBar
          v-if="cost && !said?.showsMoney"
          class="parts"
          :cost="cost"
          :open="open ? part : undefined"
          pressed
          @press="pressed"
        />
      </div>
      <div class="on">
        <ActButton v-if="said?.other" :act="said.other" size="lg" data-test="other" />
        <ActButton v-if="said" :act="said.verb" :primary="!stopped" size="lg" data-test="verb" />
      </div>
    </div>
  </aside>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.tally {
  position: fixed;
  right: 0;
  bottom: 0;
  left: 0;
  z-index: 20;
  border-top: 2px solid var(--peat);
  background: var(--paper);
}
.opened {
  max-height: calc(100vh - 200px);
  overflow: auto;
  padding: 8px 20px 16px;
  border-bottom: 1px solid var(--sedge);
  background: var(--bog-cotton);
  box-shadow: var(--shadow);
}
.foot {
  display: grid;
  grid-template-columns: minmax(160px, 1fr) minmax(0, 1.4fr) auto;
  gap: 8px 20px;
  align-items: center;
  min-height: 72px;
  padding: 8px 20px;
}
.says {
  display: grid;
  gap: 2px;
  min-width: 0;
}
.against {
  display: flex;
  gap: 8px 12px;
  align-items: center;
  min-width: 0;
}
.against p {
  margin: 0;
  overflow: auto;
  max-height: 56px;
  line-height: 1.25;
}
.against.note {
  color: var(--peat-soft);
}
.against.stop p {
  color: var(--rowan);
  font-weight: 600;
}
.against.mind p {
  color: var(--amber-moss);
}
.against :deep(.btn) {
  flex: none;
  max-width: 220px;
}
.more {
  white-space: nowrap;
}
.plain {
  flex: none;
  min-height: 44px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--water);
  text-decoration: underline;
}
.money {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 12px;
  align-items: center;
}
.figures {
  display: flex;
  min-height: 44px;
  gap: 6px;
  align-items: center;
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  white-space: nowrap;
}
.send {
  font-size: var(--type-lead);
  font-weight: 600;
}
.send small {
  font-size: var(--type-text);
  font-weight: 400;
}
.by {
  color: var(--amber-moss);
  font-weight: 600;
}
.by.better {
  color: var(--moss);
}
.on {
  display: flex;
  gap: 8px;
  justify-content: flex-end;
}
.on :deep(.btn) {
  min-height: 56px;
  justify-content: center;
  font-size: var(--type-lead);
  line-height: 1.2;
}
.on :deep(.btn-primary) {
  min-width: 180px;
}
@include at.desk {
  .foot {
    grid-template-columns: minmax(0, 1fr) auto auto;
  }
  .parts {
    display: none;
  }
  .money {
    grid-template-columns: auto;
  }
}
@include at.tablet {
  .foot {
    grid-template-columns: auto minmax(0, 1fr);
    padding: 6px 12px;
  }
  .says {
    grid-column: 1 / -1;
  }
  .on :deep(.btn-primary) {
    min-width: 0;
    flex: 1;
  }
}
@include at.phone {
  .foot {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .says {
    grid-column: auto;
  }
  .against p {
    overflow: auto;
    max-height: 60px;
  }
  /* What has a way out stands over the figures, whole lines of it, with its buttons below. */
  .says:has(button, .btn) {
    grid-column: 1 / -1;
  }
  .against:has(.btn) {
    flex-wrap: wrap;
  }
  .against:has(.btn) p {
    flex: 1 0 100%;
  }
  .send {
    font-size: var(--type-strong);
  }
  .send small {
    display: block;
    font-size: var(--type-small);
    line-height: 1;
  }
  .on {
    grid-column: 1 / -1;
  }
  .on :deep(.btn) {
    flex: 1;
    min-height: 52px;
    padding-inline: 8px;
    font-size: var(--type-strong);
  }
}
@media print {
  .tally {
    position: static;
    border: 0;
  }
  .opened {
    display: block !important;
    max-height: none;
    box-shadow: none;
    padding: 0;
  }
}
</style>
