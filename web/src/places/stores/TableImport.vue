<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, shallowRef, watch } from 'vue';

import type { TableResult } from '@/api/types';
import AffectedList from '@/parts/AffectedList.vue';
import FileText from '@/parts/FileText.vue';
import { vSay } from '@/said/say';

import type { Shelf } from './shelves';
import type { useStores } from './useStores';

const { shelf, stores } = defineProps<{ shelf: Shelf; stores: ReturnType<typeof useStores> }>();
const emit = defineEmits<{ close: [] }>();

const csv = ref('');
const seen = shallowRef<TableResult>();
const done = ref(false);
const errors = computed(() => Object.entries(stores.errors.value));

watch(csv, () => {
  seen.value = undefined;
  done.value = false;
});

async function look(): Promise<void> {
  seen.value = await stores.table(shelf.key, csv.value, true);
}

async function read(): Promise<void> {
  done.value = (await stores.table(shelf.key, csv.value, false)) !== undefined;
}
</script>

<template>
  <section class="import panel">
    <div class="heading-row">
      <h2>Read in a table of {{ shelf.name.toLowerCase() }}</h2>
      <BButton size="sm" variant="link" @click="emit('close')">Close</BButton>
    </div>
    <p class="soft">
      Begin with the table that is saved here. Known ids change, new ones are added, none is taken away.
    </p>
    <FileText v-model="csv" label="Comma-separated values" name="csv" />
    <ul v-if="errors.length > 0" v-say class="errors">
      <li v-for="[field, says] in errors" :key="field">
        <template v-if="field !== 'csv'">{{ field }}: </template>{{ says }}
      </li>
    </ul>
    <BButton v-if="!seen" :disabled="!csv.trim()" @click="look">Preview the import</BButton>
    <template v-else>
      <p data-test="table-result">
        {{ seen.added.length }} new{{ seen.added.length ? `: ${seen.added.join(', ')}` : '' }};
        {{ seen.changed.length }} changed{{ seen.changed.length ? `: ${seen.changed.join(', ')}` : '' }};
        {{ seen.same }} as they are. {{ seen.affected.length }} shipments would change.
      </p>
      <AffectedList :affected="seen.affected" />
      <p v-if="done" class="done">Read in.</p>
      <BButton v-else variant="primary" @click="read">Read it in</BButton>
    </template>
  </section>
</template>

<style scoped>
.import {
  padding: 8px 16px 16px;
}
.errors {
  padding-left: 18px;
  color: var(--rowan);
}
.done {
  color: var(--moss);
  font-weight: 600;
}
</style>
