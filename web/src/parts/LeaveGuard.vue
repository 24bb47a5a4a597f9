<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BModal } from 'bootstrap-vue-next/components/BModal';
import { ref } from 'vue';
import { onBeforeRouteLeave, onBeforeRouteUpdate } from 'vue-router';

/** Asks before something that is typed and not kept yet is left. */
const { changed, what, parts } = defineProps<{
  changed: boolean;
  /** What would be lost, as `the changed rules`. */
  what: string;
  /** The page has parts that share what is typed: going from one to another loses nothing. */
  parts?: boolean;
}>();

const asking = ref(false);
let settle: ((leave: boolean) => void) | undefined;

function mayLeave(): true | Promise<boolean> {
  if (!changed) return true;
  asking.value = true;
  return new Promise((settled) => {
    settle?.(false);
    settle = settled;
  });
}

function answer(leave: boolean): void {
  asking.value = false;
  settle?.(leave);
  settle = undefined;
}

onBeforeRouteLeave(mayLeave);
onBeforeRouteUpdate(() => parts || mayLeave());
useEventListener(window, 'beforeunload', (event) => {
  if (changed) event.preventDefault();
});
</script>

<template>
  <BModal v-model="asking" title="Leave this page?" no-footer @hidden="answer(false)">
    <p>You have not kept {{ what }}: leaving loses all of it.</p>
    <div class="acts">
      <BButton variant="primary" @click="answer(false)">Stay here</BButton>
      <BButton @click="answer(true)">Leave all the same</BButton>
    </div>
  </BModal>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
}
</style>
