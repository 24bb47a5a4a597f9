<script setup lang="ts">
import { computed } from 'vue';
import VChart from 'vue-echarts';

import type { Reckoning } from '@/api/types';

import { oddsChart, weightsChart } from './charts';

/** One chart of the log; what it says stands beside it in words and as a table. */
const { told, which, label } = defineProps<{ told: Reckoning; which: 'odds' | 'weights'; label: string }>();
const option = computed(() => (which === 'odds' ? oddsChart(told) : weightsChart(told)));
</script>

<template>
  <VChart class="chart" role="img" :aria-label="label" :option="option as never" autoresize />
</template>

<style scoped>
.chart {
  width: 100%;
  height: 260px;
}
</style>
