<script setup lang="ts">
import { onErrorCaptured, ref } from 'vue';

/** A plan of an earlier edition may lack what a stop shows today: the stop is left out then, and the rest of the page stays. */
const { earlier } = defineProps<{ earlier: boolean }>();
const failed = ref(false);
onErrorCaptured(() => {
  if (!earlier) return true;
  failed.value = true;
  return false;
});
</script>

<template>
  <p v-if="failed" class="notice" data-test="not-shown">
    This page can’t show the plan of an earlier Hummock. Its papers can still be printed at Send.
  </p>
  <slot v-else />
</template>
