<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { ref } from 'vue';

import type { ShelfItem } from '@/api/types';
import NumberField from '@/parts/NumberField.vue';

import { amount, asCounted, asKept, sent, unitOf } from './amounts';
import type { Shelf } from './useShelf';

/** How much there is of something, counted anew in its place. */
const { item, shelf } = defineProps<{ item: ShelfItem; shelf: Shelf }>();
const typed = ref<number | null>(null);
const counting = ref(false);
/** What the count stood at when it was last seen: the page may learn of another bench's count while one is typed. */
const seen = ref(0);

function begin(): void {
  typed.value = asCounted(item.left, item.measure);
  seen.value = item.left;
  counting.value = true;
}
async function count(): Promise<void> {
  if (typed.value === null) return;
  const left = asKept(typed.value, item.measure);
  const request = sent(item, left);
  const done = item.id ? await shelf.count(item.id, seen.value, request) : await shelf.put(request);
  if (done) counting.value = false;
  else seen.value = item.left;
}
</script>

<template>
  <form v-if="counting" class="count" @submit.prevent="count">
    <NumberField
      v-model="typed"
      :label="`How much of ${item.material_name}`"
      :name="`left.${item.id ?? item.kind}`"
      bare
      :error="shelf.errors.value['left']"
    />
    <span>{{ unitOf(item.measure) }}</span>
    <BButton type="submit" size="sm" variant="primary" :disabled="typed === null">Count</BButton>
    <BButton size="sm" variant="link" @click="counting = false">Leave it</BButton>
    <span v-if="item.id && seen !== item.left" class="small">
      Counted elsewhere meanwhile: {{ amount(item.left, item.measure) }}
    </span>
  </form>
  <span v-else class="count">
    <strong class="figure" :class="{ none: item.left === 0 }">{{ amount(item.left, item.measure) }}</strong>
    <BButton
      size="sm"
      class="no-print"
      :aria-label="`Count ${item.name || item.material_name}`"
      @click="begin"
      >Count</BButton
    >
  </span>
</template>

<style scoped>
.count {
  display: inline-flex;
  gap: 8px;
  align-items: center;
}
.count strong {
  min-width: 64px;
  text-align: right;
}
.none {
  color: var(--rowan);
}
.count :deep(input) {
  width: 90px;
}
</style>
