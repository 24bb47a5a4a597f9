<script setup lang="ts">
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox';

defineProps<{ label: string; name: string }>();
const ticked = defineModel<boolean>({ required: true });
</script>

<template>
  <div>
    <BFormCheckbox v-model="ticked" :name="name">{{ label }}</BFormCheckbox>
  </div>
</template>
