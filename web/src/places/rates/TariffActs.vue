<script setup lang="ts">
import CopyIcon from '~icons/tabler/copy';

import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';

import type { OpenTariff } from './useTariff';

/** What can be done with a price list as a whole. */
const { open } = defineProps<{ open: OpenTariff }>();
const { basis, listed, text, csv, changed, double, asText, put, drop } = open;

const more = ref(false);
const download = computed(() => {
  const kept = listed.value.find(({ tariff }) => tariff.id === basis.value?.id);
  return kept
    ? `data:application/json;charset=utf-8,${encodeURIComponent(JSON.stringify(kept.tariff, null, 2))}`
    : '';
});
</script>

<template>
  <div v-if="basis" class="acts no-print">
    <BButton variant="primary" :disabled="!changed && text === undefined" @click="put(false)"
      >Save rates</BButton
    >
    <BButton v-if="text !== undefined" @click="put(true)">Look them over</BButton>
    <BButton v-if="text !== undefined" @click="asText">Back to the form</BButton>
    <BButton v-if="basis.version === undefined" variant="link" @click="drop">Leave it</BButton>
    <template v-if="text === undefined">
      <BButton :aria-expanded="more" @click="more = !more">More</BButton>
      <div v-if="more" class="menu panel">
        <BButton v-if="basis.version !== undefined" @click="double"
          ><CopyIcon aria-hidden="true" /> Copy</BButton
        >
        <BButton @click="asText">As text</BButton>
        <a v-if="download" class="btn" :href="download" :download="`${basis.id}.json`">Save as JSON</a>
        <a v-if="basis.version !== undefined" class="btn" :href="`/api/v1/tariffs/${basis.id}/table`" download
          >Prices as CSV</a
        >
        <BButton
          v-if="basis.version !== undefined"
          :aria-pressed="csv !== undefined"
          @click="csv = csv === undefined ? '' : undefined"
          >Read prices in</BButton
        >
        <BButton v-if="basis.version !== undefined" variant="link" @click="drop">Delete</BButton>
      </div>
    </template>
  </div>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: flex-start;
  margin-bottom: 12px;
}
.menu {
  display: flex;
  flex: 1 0 100%;
  flex-wrap: wrap;
  gap: 8px;
  padding: 8px;
}
</style>
