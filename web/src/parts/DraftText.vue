<script setup lang="ts">
import { BFormTextarea } from 'bootstrap-vue-next/components/BFormTextarea';
import { computed } from 'vue';

import { FIELDS } from '@/shipment/fields';
import { useShipment } from '@/shipment/useShipment';

import FieldShell from './FieldShell.vue';

/** A paragraph about what came of the open shipment. */
const {
  path,
  hint,
  rows = 3,
} = defineProps<{ path: 'after.damage' | 'after.lesson'; hint?: string; rows?: number }>();
const { draft, errors } = useShipment();
const key = computed(() => (path === 'after.damage' ? 'damage' : 'lesson'));
</script>

<template>
  <FieldShell v-slot="{ id, described }" :label="FIELDS[path].label" :error="errors[path]" :hint="hint">
    <BFormTextarea
      :id="id"
      v-model="draft.after[key]"
      :name="path"
      :rows="rows"
      :state="errors[path] ? false : null"
      :aria-describedby="described"
    />
  </FieldShell>
</template>
