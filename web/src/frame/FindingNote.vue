<script setup lang="ts">
import type { Finding } from '@/api/types';

defineProps<{ finding: Finding }>();

const WORDS = { stop: 'Stop', mind: 'Mind', note: 'Note' } as const;
</script>

<template>
  <p class="finding" :class="finding.level">
    <strong>{{ WORDS[finding.level] }}</strong> {{ finding.says }}
  </p>
</template>

<style scoped>
.finding {
  margin: 8px 0 0;
  padding: 8px 12px;
  border-left: 4px solid var(--water);
  background: var(--paper);
}
.mind {
  border-color: var(--amber-moss);
}
.stop {
  border-color: var(--rowan);
}
.stop strong {
  color: var(--rowan);
}
</style>
