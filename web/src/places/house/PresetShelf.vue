<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { ref } from 'vue';

import { api } from '@/api/client';
import type { Preset } from '@/api/types';
import { usePresets } from '@/api/usePresets';
import TextField from '@/parts/TextField.vue';

import type { useRules } from './useRules';

const { house } = defineProps<{ house: ReturnType<typeof useRules> }>();

const { presets, reload } = usePresets();
const naming = ref(false);
const name = ref('');

async function keep(): Promise<void> {
  if (!(await house.keepAs(name.value))) return;
  naming.value = false;
  name.value = '';
  await reload();
}

async function drop(preset: Preset): Promise<void> {
  await api.DELETE('/api/v1/studio/presets/{name}', { params: { path: { name: preset.rules.name } } });
  await reload();
}
</script>

<template>
  <section class="shelf">
    <h2>Presets</h2>
    <ul>
      <li v-for="preset in presets" :key="preset.rules.name" :data-preset="preset.rules.name">
        <strong>{{ preset.rules.name }}</strong>
        <span class="soft">{{ preset.own ? 'kept by this studio' : preset.why }}</span>
        <span class="acts">
          <BButton size="sm" @click="house.follow(preset.rules)">Start from it</BButton>
          <BButton v-if="preset.own" size="sm" variant="link" @click="drop(preset)">Delete it</BButton>
        </span>
      </li>
    </ul>
    <BButton v-if="!naming" size="sm" @click="naming = true">Keep these rules as a preset</BButton>
    <form v-else @submit.prevent="keep">
      <TextField
        v-model="name"
        label="Name of the preset"
        name="preset-name"
        :error="house.errors.value.name"
      />
      <BButton size="sm" type="submit" variant="primary" :disabled="!name.trim()">Keep it</BButton>
      <BButton size="sm" variant="link" @click="naming = false">Not now</BButton>
    </form>
  </section>
</template>

<style scoped>
h2 {
  margin: 12px 0 4px;
  font-size: var(--type-lead);
}
ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(165px, 1fr));
  gap: 8px;
  margin: 0 0 8px;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  flex-direction: column;
  gap: 2px;
  padding: 8px 10px;
  border: 1px solid var(--sedge);
  background: var(--paper);
  line-height: 1.3;
}
li .soft {
  font-size: var(--type-small);
}
.acts {
  margin-top: auto;
  padding-top: 4px;
}
form {
  max-width: 340px;
}
</style>
