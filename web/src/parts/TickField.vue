<script setup lang="ts">
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox';

defineProps<{
  label: string;
  name: string;
  /** In a table, whose head says what it is. */
  bare?: boolean;
}>();
const ticked = defineModel<boolean>({ required: true });
</script>

<template>
  <div>
    <BFormCheckbox v-model="ticked" :name="name" :value="true" :unchecked-value="false"
      ><span :class="{ 'visually-hidden': bare }">{{ label }}</span></BFormCheckbox
    >
  </div>
</template>
