<script setup lang="ts">
import { vSay } from '@/said/say';

import type { OpenTariff } from './useTariff';

/** What came of looking a price list over, or of keeping it. */
const { open } = defineProps<{ open: OpenTariff }>();
const { rates, told } = open;
</script>

<template>
  <ul v-if="rates.wrong.value.length > 0" v-say class="wrong" data-test="wrong">
    <li v-for="one in rates.wrong.value" :key="one.place">
      <code>{{ one.place }}</code>: {{ one.says }}
    </li>
  </ul>
  <div v-else-if="told" v-say class="notice" data-test="told">
    The rates hold together{{
      open.basis.value?.version === undefined ? '' : `, edition ${open.basis.value.version}`
    }}. {{ told.affected.length === 0 ? 'No shipment on the bench changes.' : '' }}
    <template v-if="told.affected.length > 0">
      On the bench
      {{ told.affected.length === 1 ? 'one shipment changes' : `${told.affected.length} shipments change` }}:
      {{ told.affected.map(({ title }) => title).join(', ') }}.
    </template>
  </div>
  <ul v-if="told?.dips.length" class="dips">
    <li v-for="dip in told.dips" :key="dip.place">
      <code>{{ dip.place }}</code>: {{ dip.says }}
    </li>
  </ul>
</template>

<style scoped>
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
