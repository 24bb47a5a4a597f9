<script setup lang="ts">
import { useDocuments } from './useDocuments';

/** A link to a paper; while the program that makes papers is still being built, it says so in its place. */
const { href } = defineProps<{ href: string }>();
defineOptions({ inheritAttrs: false });
const { ready } = useDocuments();
</script>

<template>
  <span v-if="ready === false" class="soft waits no-print" data-test="no-papers">
    <slot /> (not yet: the program that makes papers is still being built)
  </span>
  <a v-else :href="href" v-bind="$attrs"><slot /></a>
</template>

<style scoped>
.waits {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
</style>
