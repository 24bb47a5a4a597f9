<script setup lang="ts">
import { computed, ref } from 'vue';

import type { Allowance } from '@/api/types';

import AllowanceRow from './AllowanceRow.vue';
import { grouped, onPages } from './groups';

const { allowances, errors } = defineProps<{ allowances: Allowance[]; errors: Record<string, string> }>();
const values = defineModel<Record<string, number | null>>({ required: true });
const shown = computed(() => onPages(allowances, values.value));
const groups = computed(() => grouped(shown.value));
/** A group that was opened for a refused value stays open when it is put right. */
const opened = ref<Record<string, boolean>>({});
const refused = (some: Allowance[]) => some.some(({ key }) => errors[`allowances.${key}`]);
</script>

<template>
  <section>
    <h2>All numbers</h2>
    <details
      v-for="group in groups"
      :key="group.name"
      :open="opened[group.name] || refused(group.allowances)"
      @toggle="opened[group.name] = ($event.target as HTMLDetailsElement).open"
    >
      <summary>
        {{ group.name }}
        <span class="soft">{{ group.allowances.length }}</span>
      </summary>
      <AllowanceRow
        v-for="allowance in group.allowances"
        :key="allowance.key"
        v-model="values[allowance.key]"
        :allowance="allowance"
        :error="errors[`allowances.${allowance.key}`]"
      />
    </details>
    <p v-if="shown.length < allowances.length" class="soft">
      {{ allowances.length - shown.length }} more follow from custom and physics. They change by the
      <RouterLink to="/about/api">API</RouterLink>, and stand here once they are changed.
    </p>
  </section>
</template>

<style scoped>
h2 {
  margin: 20px 0 4px;
  font-size: var(--type-lead);
}
details {
  border-top: 1px solid var(--sedge);
}
summary {
  padding: 8px 0;
  font-family: var(--heading);
  font-size: var(--type-strong);
  font-weight: 600;
  cursor: pointer;
}
</style>
