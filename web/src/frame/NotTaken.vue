<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { nextTick, ref, watch } from 'vue';
import { useRoute } from 'vue-router';

import { valueAt } from '@/shipment/draft';
import { fieldInSentence, stopOfField, valueInSentence } from '@/shipment/fields';
import { STOPS } from '@/shipment/stops';
import { useShipment } from '@/shipment/useShipment';

/** What was typed and is not taken, where its field is not on the page: it would keep the light red unseen. */
const { id, errors, draft, loose, plan, text: textOf } = useShipment();
const route = useRoute();

interface Hidden {
  field: string;
  says: string;
  text: string;
  stop: (typeof STOPS)[number];
}
const hidden = ref<Hidden[]>([]);

async function look(): Promise<void> {
  await nextTick();
  const fields = [...new Set([...Object.keys(loose.value), ...Object.keys(errors.value)])];
  const away = fields.filter((field) => !document.querySelector(`[name="${CSS.escape(field)}"]`));
  hidden.value = away
    .filter((field) => !field.startsWith('reason.'))
    .map((field) => ({
      field,
      says: fieldInSentence(field),
      text: loose.value[field] ?? valueInSentence(field, valueAt(draft, field)),
      stop: STOPS.find(({ name }) => name === stopOfField(field)) ?? STOPS[0],
    }));
}
watch([errors, loose, plan, () => route.fullPath], () => void look(), { immediate: true });
</script>

<template>
  <ul v-if="hidden.length > 0" class="notice no-print" data-test="not-taken">
    <li v-for="{ field, says, text, stop } in hidden" :key="field">
      Not saved yet: {{ says }}, “{{ text }}”{{ errors[field] ? `: ${errors[field]}` : '' }}.
      <RouterLink v-if="route.name !== stop.name" :to="{ name: stop.name, params: { id } }">
        Correct it at {{ stop.title }}
      </RouterLink>
      <BButton v-if="loose[field] !== undefined" size="sm" @click="textOf(field).value = undefined"
        >Discard it</BButton
      >
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
}
</style>
