<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import { vSay } from '@/said/say';
import { inputsOf, draftOf } from '@/shipment/draft';
import { fieldInSentence, valueInSentence } from '@/shipment/fields';
import { useShipment } from '@/shipment/useShipment';

const { conflict, settle } = useShipment();

type Tree = { [key: string]: Tree } | string | number | boolean | null | undefined;

function at(tree: Tree, path: string): string {
  const value = path
    .split('.')
    .reduce<Tree>((part, key) => (part && typeof part === 'object' ? part[key] : undefined), tree);
  return valueInSentence(path, value);
}

const rows = computed(() => {
  const open = conflict.value;
  if (!open) return [];
  const theirs = inputsOf(draftOf(open.theirs.inputs)) as unknown as Tree;
  return open.fields.map((field) => ({
    name: fieldInSentence(field),
    mine: at(open.mine as Tree, field),
    theirs: at(theirs, field),
  }));
});
</script>

<template>
  <section v-if="conflict" v-say class="notice" data-test="conflict">
    <strong>This shipment was changed in another tab or by someone else.</strong>
    Your changes here are kept, but not saved yet.
    <table class="figure">
      <thead>
        <tr>
          <th scope="col" />
          <th scope="col">yours</th>
          <th scope="col">the other</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.name">
          <th scope="row">{{ row.name }}</th>
          <td>{{ row.mine }}</td>
          <td>{{ row.theirs }}</td>
        </tr>
      </tbody>
    </table>
    <BButton size="sm" @click="settle('mine')">Keep yours</BButton>
    <BButton size="sm" @click="settle('theirs')">Take the other</BButton>
  </section>
</template>

<style scoped lang="scss">
// In the middle of what is looked at, however far the page was moved.
.notice {
  position: fixed;
  top: 18vh;
  right: 12px;
  left: 12px;
  z-index: 30;
  max-width: 560px;
  max-height: 60vh;
  margin-inline: auto;
  padding: 16px 20px;
  overflow: auto;
  border: 2px solid var(--rowan);
  background: var(--paper);
  box-shadow: var(--shadow);
}
@media print {
  .notice {
    position: static;
  }
}
table {
  margin: 8px 0;
}
th,
td {
  padding: 2px 24px 2px 0;
  text-align: left;
}
.btn {
  margin-right: 8px;
}
</style>
