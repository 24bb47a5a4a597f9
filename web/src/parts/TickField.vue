<script setup lang="ts">
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox';

defineProps<{ label: string; name: string }>();
const ticked = defineModel<boolean>({ required: true });
</script>

<template>
  <BFormCheckbox v-model="ticked" class="tick" :name="name">{{ label }}</BFormCheckbox>
</template>
