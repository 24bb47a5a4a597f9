<script setup lang="ts">
import { computed } from 'vue';

import type { Money } from '@/api/types';
import type { SumName } from '@/frame/amounts';
import { money } from '@/units/show';

/** An amount that says which sum it is. */
const { sum, bare } = defineProps<{
  of: SumName;
  sum: Money;
  /** Without its money, where a head names that. */
  bare?: boolean;
}>();
const shown = computed(() => (bare ? (money(sum).split('\u00a0')[0] ?? '') : money(sum)));
</script>

<template>
  <span class="figure sum" :data-sum="of">{{ shown }}</span>
</template>

<style scoped>
.sum {
  white-space: nowrap;
}
</style>
