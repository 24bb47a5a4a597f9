<script setup lang="ts">
import MinusIcon from '~icons/tabler/minus';

import { BButton } from 'bootstrap-vue-next/components/BButton';

/** Takes a line, a row or a column out of a form. */
defineProps<{ label: string }>();
const emit = defineEmits<{ press: [] }>();
</script>

<template>
  <BButton variant="link" class="out no-print" :aria-label="label" :title="label" @click="emit('press')"
    ><MinusIcon aria-hidden="true"
  /></BButton>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.out {
  flex: none;
  min-width: 32px;
  min-height: 32px;
  padding: 0 6px;
  text-decoration: none;
}
@include at.phone {
  .out {
    min-width: 44px;
    min-height: 44px;
  }
}
</style>
