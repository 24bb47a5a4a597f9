<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { ref, useTemplateRef } from 'vue';

import type { Leaving } from '@/api/types';

/** What the buyer is told, ready to be copied into a mail. */
const { message } = defineProps<{ message: NonNullable<Leaving['message']> }>();
const text = useTemplateRef<HTMLElement>('text');
const says = ref('');

async function copy(): Promise<void> {
  try {
    await navigator.clipboard.writeText(message.text);
    says.value = 'Copied.';
  } catch {
    // Over plain HTTP on the local network a browser lets nobody at its clipboard.
    if (text.value) window.getSelection()?.selectAllChildren(text.value);
    says.value = 'Selected: press Ctrl+C, or hold it, to copy.';
  }
}
</script>

<template>
  <div class="heading-row"><h2>Tell the buyer</h2></div>
  <p class="subject"><span class="soft">Subject</span> {{ message.subject }}</p>
  <p ref="text" class="text" data-test="message">{{ message.text }}</p>
  <BButton class="no-print" @click="copy">Copy the message</BButton>
  <span class="soft" role="status"> {{ says }}</span>
</template>

<style scoped>
.subject {
  margin: 0 0 4px;
  font-weight: 600;
}
.text {
  margin: 0 0 8px;
  padding: 8px 12px;
  overflow-wrap: anywhere;
  border: 1px solid var(--sedge);
  background: var(--bog-cotton);
  white-space: pre-wrap;
}
</style>
