<script setup lang="ts">
import { BModal } from 'bootstrap-vue-next/components/BModal';
import { computed, ref, useTemplateRef } from 'vue';
import { useRouter } from 'vue-router';

import { found, whereTo } from './acts';
import type { Act } from './acts';

/** Whatever can be done with the open parcel, or anywhere, by a word for it. */
const { id } = defineProps<{ id: string }>();
const shown = defineModel<boolean>({ required: true });
const router = useRouter();
const sought = ref('');
const field = useTemplateRef<HTMLInputElement>('field');

const MOST = 8;
const acts = computed(() => found(sought.value).slice(0, MOST));

async function go(act: Act | undefined): Promise<void> {
  if (!act) return;
  shown.value = false;
  await router.push(whereTo(act, id));
}
function opened(): void {
  sought.value = '';
  field.value?.focus();
}
</script>

<template>
  <BModal v-model="shown" title="Find an action" title-tag="h2" title-class="fs-5" no-footer @shown="opened">
    <label>
      <span class="visually-hidden">What do you want to do?</span>
      <input
        ref="field"
        v-model="sought"
        type="search"
        name="find-act"
        class="form-control"
        autocomplete="off"
        placeholder="For example: label, claim, pack sheet"
        @keydown.enter.prevent="go(acts[0])"
      />
    </label>
    <ul v-if="sought.trim()" data-test="acts">
      <li v-for="act in acts" :key="act.name">
        <button type="button" @click="go(act)">
          {{ act.name }} <span class="soft">{{ act.where }}</span>
        </button>
      </li>
      <li v-if="acts.length === 0" class="soft none">Nothing is called that. Try another word.</li>
    </ul>
  </BModal>
</template>

<style scoped>
label {
  display: block;
}
input {
  max-width: none;
}
ul {
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
}
button {
  display: flex;
  width: 100%;
  min-height: 44px;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
  padding: 4px 12px;
  border: 0;
  border-bottom: 1px solid var(--sedge);
  background: none;
  color: inherit;
  text-align: left;
}
button:hover,
li:first-child button {
  background: var(--lichen);
}
.none {
  padding: 10px 12px;
}
</style>
