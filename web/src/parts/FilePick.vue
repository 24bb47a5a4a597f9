<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { useDropZone } from '@vueuse/core';
import { ref, useTemplateRef } from 'vue';

/** A file that is chosen by our own button, or dropped on it. */
const { accept, several, disabled, name } = defineProps<{
  accept?: string;
  several?: boolean;
  disabled?: boolean;
  name?: string;
  /** What the button says. */
  says: string;
}>();
const emit = defineEmits<{ picked: [files: File[]] }>();

const zone = useTemplateRef<HTMLElement>('zone');
const input = useTemplateRef<HTMLInputElement>('input');
const over = ref(false);
function taken(files: readonly File[] | FileList | null | undefined): void {
  over.value = false;
  const found = [...(files ?? [])];
  if (found.length > 0 && !disabled) emit('picked', several ? found : found.slice(0, 1));
  // The same file may be chosen again.
  if (input.value) input.value.value = '';
}
useDropZone(zone, {
  onDrop: taken,
  onEnter: () => (over.value = true),
  onLeave: () => (over.value = false),
  multiple: true,
});
</script>

<template>
  <span ref="zone" class="pick no-print" :class="{ over }">
    <BButton :disabled="disabled" @click="input?.click()">{{ says }}</BButton>
    <input
      ref="input"
      type="file"
      class="visually-hidden"
      tabindex="-1"
      aria-hidden="true"
      :accept="accept"
      :multiple="several"
      :disabled="disabled"
      :name="name"
      @change="taken(input?.files)"
    />
    <span class="soft drop">{{ several ? 'or drop them here' : 'or drop it here' }}</span>
  </span>
</template>

<style scoped>
.pick {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
  padding: 4px;
  border: 1px dashed var(--peat-soft);
  border-radius: var(--corner);
}
.pick.over {
  border-color: var(--heather);
  background: var(--lichen);
}
.drop {
  padding-right: 8px;
}
/* Nothing is dropped by a finger. */
@media (hover: none) {
  .pick {
    padding: 0;
    border: 0;
  }
  .drop {
    display: none;
  }
}
</style>
