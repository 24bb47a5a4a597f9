<script setup lang="ts">
import DotsIcon from '~icons/tabler/dots';

import { BDropdown, BDropdownItemButton } from 'bootstrap-vue-next/components/BDropdown';

import type { Place } from '@/api/types';

/** Where a shipment of the bench can be put. */
const { called, moves } = defineProps<{ called: string; moves: { to: Place; text: string }[] }>();
const emit = defineEmits<{ put: [to: Place] }>();
</script>

<template>
  <BDropdown class="menu" size="sm" no-caret placement="bottom-end" lazy>
    <template #button-content>
      <DotsIcon aria-hidden="true" />
      <span class="visually-hidden">More for {{ called }}</span>
    </template>
    <BDropdownItemButton v-for="{ to, text } in moves" :key="to" @click="emit('put', to)">{{
      text
    }}</BDropdownItemButton>
  </BDropdown>
</template>

<style scoped>
.menu :deep(.btn) {
  min-width: 40px;
  border-color: transparent;
  background: none;
}
.menu :deep(.btn:hover),
.menu :deep(.btn.show) {
  border-color: var(--peat);
}
</style>
