<script setup lang="ts">
import BackToParcel from '@/parts/BackToParcel.vue';
import { vSay } from '@/said/say';

import type { OpenTariff } from './useTariff';

/** What came of looking a price list over, or of keeping it. */
const { open } = defineProps<{ open: OpenTariff }>();
const { rates, told } = open;

const fieldOf = (place: string) =>
  [...document.querySelectorAll<HTMLElement>('main [name]')].find((field) => {
    const name = field.getAttribute('name') ?? '';
    return name === place || name.startsWith(`${place}/`);
  });
/** Leads to the field that something is wrong at, whatever it is folded into. */
function lead(place: string): void {
  const field = fieldOf(place);
  for (let fold = field?.closest('details'); fold; fold = fold.parentElement?.closest('details'))
    fold.open = true;
  field?.focus();
  field?.scrollIntoView({ block: 'center' });
}
/** What stands in a form is told by its field; what came as text or as a table by its place. */
const inForm = () => open.text.value === undefined && open.csv.value === undefined;
</script>

<template>
  <ul v-if="rates.wrong.value.length > 0" v-say class="wrong" data-test="wrong">
    <li v-for="one in rates.wrong.value" :key="one.place">
      <button v-if="inForm()" type="button" class="link" @click="lead(one.place)">{{ one.says }}</button>
      <template v-else
        ><code>{{ one.place }}</code
        >: {{ one.says }}</template
      >
    </li>
  </ul>
  <div v-else-if="told" v-say class="notice" data-test="told">
    No errors in the rates{{
      open.basis.value?.version === undefined ? '' : `, edition ${open.basis.value.version}`
    }}. {{ told.affected.length === 0 ? 'No shipment on the bench changes.' : '' }}
    <template v-if="told.affected.length > 0">
      On the bench
      {{ told.affected.length === 1 ? 'one shipment changes' : `${told.affected.length} shipments change` }}:
      {{ told.affected.map(({ title }) => title).join(', ') }}.
    </template>
    <BackToParcel v-if="open.basis.value?.version !== undefined" />
  </div>
  <ul v-if="told?.dips.length" class="dips">
    <li v-for="dip in told.dips" :key="dip.place">
      {{ dip.says }}
    </li>
  </ul>
</template>

<style scoped>
.link {
  padding: 2px 0;
  border: 0;
  background: none;
  color: var(--rowan);
  text-align: left;
  text-decoration: underline;
}
.wrong,
.notice {
  position: sticky;
  top: 0;
  z-index: 2;
  max-height: 30vh;
  overflow: auto;
}
.wrong,
.dips,
.notice {
  margin: 0 0 12px;
  padding: 8px 12px;
  border-left: 4px solid var(--rowan);
  background: var(--paper);
  list-style: none;
}
.dips {
  border-color: var(--amber-moss);
}
.notice {
  border-color: var(--moss);
}
</style>
