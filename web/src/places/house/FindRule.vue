<script setup lang="ts">
import { computed, nextTick, ref } from 'vue';
import { useRouter } from 'vue-router';

import type { Studio } from '@/api/types';
import { useKeys } from '@/keys/useKeys';

import { found, PARTS, rulesOf } from './parts';
import type { Rule } from './parts';

/** Any rule by its words; pressing one leads to where it stands. */
const { studio, numbers } = defineProps<{ studio: Studio; numbers: Record<string, number | null> }>();
const router = useRouter();
const sought = ref('');
const field = ref<HTMLInputElement>();

const MOST = 8;
const rules = computed(() => rulesOf(studio, numbers));
const all = computed(() => found(rules.value, sought.value));
const shown = computed(() => all.value.slice(0, MOST));
const partName = (rule: Rule) => PARTS.find(({ key }) => key === rule.part)?.name ?? '';

async function go(rule: Rule): Promise<void> {
  sought.value = '';
  await router.push(`/rules/${rule.part}`);
  await nextTick();
  const there = document.querySelector<HTMLElement>(`.rules-part ${rule.at}`);
  const folded = there?.closest('details');
  if (folded) folded.open = true;
  await nextTick();
  there?.scrollIntoView({ block: 'center' });
  const control = there?.matches('input')
    ? there
    : there?.querySelector<HTMLElement>('input, select, summary');
  control?.focus({ preventScroll: true });
}
useKeys({ '/': () => field.value?.focus() });
</script>

<template>
  <div class="find no-print">
    <label>
      <span class="visually-hidden">Find a rule</span>
      <input
        ref="field"
        v-model="sought"
        type="search"
        name="find-rule"
        class="form-control"
        placeholder="Find a rule: tape, overhead, corner"
        @keydown.enter.prevent="shown[0] && go(shown[0])"
      />
    </label>
    <ul v-if="sought.trim()" data-test="found">
      <li v-for="rule in shown" :key="`${rule.part}${rule.at}${rule.name}`">
        <button type="button" @click="go(rule)">
          {{ rule.name }} <span class="soft">{{ partName(rule) }}</span>
        </button>
      </li>
      <li v-if="shown.length === 0" class="soft none">No rule matches.</li>
      <li v-else-if="all.length > MOST" class="soft none">and {{ all.length - MOST }} more: add a word</li>
    </ul>
  </div>
</template>

<style scoped>
.find {
  position: relative;
  max-width: 420px;
}
label {
  display: block;
}
ul {
  position: absolute;
  z-index: 5;
  right: 0;
  left: 0;
  margin: 0;
  padding: 0;
  border: 1px solid var(--peat);
  background: var(--paper);
  box-shadow: var(--shadow);
  list-style: none;
}
button {
  width: 100%;
  min-height: 44px;
  padding: 4px 12px;
  border: 0;
  border-bottom: 1px solid var(--sedge);
  background: none;
  color: inherit;
  text-align: left;
}
button:hover {
  background: var(--lichen);
}
.soft {
  margin-left: 8px;
}
.none {
  margin: 0;
  padding: 10px 12px;
}
</style>
