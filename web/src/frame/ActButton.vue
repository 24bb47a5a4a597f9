<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';

import PaperLink from '@/parts/PaperLink.vue';

import type { Verb } from './foot';

/** A button, a link or a paper: whichever its act is. */
const { act } = defineProps<{ act: Verb; primary?: boolean; size?: 'sm' | 'lg' }>();
</script>

<template>
  <RouterLink
    v-if="act.to && !act.disabled"
    :to="act.to"
    class="btn"
    :class="[primary ? 'btn-primary' : 'btn-outline-secondary', size && `btn-${size}`]"
    >{{ act.text }}</RouterLink
  >
  <PaperLink
    v-else-if="act.paper && !act.disabled"
    :href="act.paper"
    class="btn"
    :class="[primary ? 'btn-primary' : 'btn-outline-secondary', size && `btn-${size}`]"
    >{{ act.text }}</PaperLink
  >
  <BButton
    v-else
    :variant="primary ? 'primary' : 'outline-secondary'"
    :size="size"
    :disabled="act.disabled"
    @click="act.press?.()"
    >{{ act.text }}</BButton
  >
</template>
