<script setup lang="ts">
import { computed } from 'vue';

import type { Dearer, Quote } from '@/api/types';
import SumOf from '@/parts/SumOf.vue';
import { kilograms } from '@/units/show';

import { toldOf } from './dearer';

/** A service in a line: its total, and why it stands behind the first. */
const { quote, dearer, late } = defineProps<{
  quote: Quote;
  dearer?: Dearer;
  /** That it is late, in words; empty if it is not. */
  late: string;
}>();
const emit = defineEmits<{ open: [] }>();
const told = computed(() => dearer && toldOf(dearer));
</script>

<template>
  <li>
    <button type="button" @click="emit('open')">{{ quote.carrier }} {{ quote.service }}</button>
    <SumOf v-if="quote.cost" of="total" :sum="quote.cost.total" />
    <span class="why soft figure">
      <span v-if="told"
        ><SumOf of="difference" :sum="told.difference" /> {{ told.way
        }}<template v-for="({ name, sum }, at) in told.because" :key="name"
          >{{ at === 0 ? ': ' : ', ' }}{{ name }} <SumOf of="difference" :sum="sum" bare /></template
      ></span>
      <span v-if="dearer?.billed_by_size_g"
        >; billed by size as {{ kilograms(dearer.billed_by_size_g) }}</span
      >
      <span v-if="late">{{ told ? '; ' : '' }}{{ late }}</span>
      <span v-if="quote.uncovered"
        >{{ told || late ? '; ' : '' }}<SumOf of="not_covered" :sum="quote.uncovered" /> not covered</span
      >
    </span>
  </li>
</template>

<style scoped lang="scss">
@use '@/styles/at';

li {
  display: grid;
  grid-template-columns: minmax(0, 2fr) auto minmax(0, 3fr);
  gap: 0 16px;
  align-items: center;
  min-height: 44px;
  padding: 4px 12px;
  border-top: 1px solid var(--sedge);
}
button {
  min-height: 44px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--water);
  font-weight: 600;
  text-align: left;
  text-decoration: underline;
}
@include at.phone {
  li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .why {
    grid-column: 1 / -1;
  }
}
</style>
