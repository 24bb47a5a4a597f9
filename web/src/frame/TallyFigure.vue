<script setup lang="ts">
import { useTimeoutFn } from '@vueuse/core';
import { ref, watch } from 'vue';

import { useSaid } from '@/said/say';

const props = defineProps<{
  name: string;
  shown: string;
  note?: string;
  minded?: boolean;
  /** What changes are told from. */
  value: number;
  change: (by: number) => string;
  /** Whether a larger figure is the better one. */
  moreIsBetter?: boolean;
}>();

const SHOWN_FOR_MS = 6000;
/** Less than this is the dust of the sum, not a change. */
const LEAST_CHANGE = 0.005;

const difference = ref('');
const fewer = ref(false);
const { say } = useSaid();
const { start } = useTimeoutFn(() => (difference.value = ''), SHOWN_FOR_MS, { immediate: false });

watch(
  () => props.value,
  (now, before) => {
    const by = now - before;
    if (Math.abs(by) < LEAST_CHANGE) return;
    difference.value = props.change(by);
    say(`${props.name} ${props.shown}, ${difference.value}`);
    fewer.value = props.moreIsBetter ? by > 0 : by < 0;
    start();
  },
);
</script>

<template>
  <div class="row">
    <span class="name soft">{{ name }}</span>
    <strong class="shown figure" :data-figure="name">{{ shown }}</strong>
    <span v-if="note || difference" class="note">
      <span :class="{ minded }">{{ note }}</span>
      <span v-if="difference" class="change figure" :class="{ fewer }">{{ difference }}</span>
    </span>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0 8px;
  align-items: baseline;
  justify-content: space-between;
  padding: 8px 0;
  border-bottom: 1px solid var(--sedge);
}
.shown {
  margin-left: auto;
  font-size: 1.1875rem;
  text-align: right;
}
.note {
  display: flex;
  width: 100%;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 0 12px;
  color: var(--peat-soft);
  font-size: 0.9375rem;
}
.minded {
  color: var(--amber-moss);
  font-weight: 600;
}
.change {
  color: var(--amber-moss);
  font-weight: 600;
}
.change.fewer {
  color: var(--moss);
}
</style>
