<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';

import type { ExceptionSheet } from '@/api/types';
import TextField from '@/parts/TextField.vue';

import WhenForm from './WhenForm.vue';
import OutButton from './OutButton.vue';
import { useWrong } from './wrong';

/** What a service does not take, or does not cover. */
const { place, zones, add } = defineProps<{
  place: string;
  zones: readonly string[];
  /** What the button says that adds one. */
  add: string;
}>();
const exceptions = defineModel<ExceptionSheet[]>({ required: true });
const wrong = useWrong();

function more(): void {
  exceptions.value.push({ name: '', when: { joined: 'all', of: [{ kind: 'glass' }] } });
}
</script>

<template>
  <div v-for="(one, at) in exceptions" :key="at" class="one">
    <TextField
      v-model="one.name"
      class="name"
      bare
      label="What, in words"
      placeholder="What, as works on paper"
      :name="`${place}/${at}/name`"
      :error="wrong(`${place}/${at}/name`)"
    />
    <WhenForm v-model="one.when" :place="`${place}/${at}/when`" :zones="zones" />
    <OutButton :label="`Take out ${one.name || `exception ${at + 1}`}`" @press="exceptions.splice(at, 1)" />
  </div>
  <BButton size="sm" variant="link" @click="more">+ {{ add }}</BButton>
</template>

<style scoped>
.one {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
  padding: 4px 0;
}
.name {
  flex: 0 1 220px;
}
</style>
