<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import { inputsOf, draftOf } from '@/shipment/draft';
import { useShipment } from '@/shipment/useShipment';

const { conflict, settle } = useShipment();

const NAMES: Record<string, string> = {
  title: 'title',
  'buyer.name': 'buyer',
  'piece.width': 'width',
  'piece.height': 'height',
  'piece.depth': 'depth',
  'piece.medium': 'medium',
  'piece.finished': 'day finished',
  'choices.first_turns': 'turns of the first wrap',
  'choices.second_turns': 'turns of the second wrap',
  'choices.face_board': 'face board',
  'choices.board_proud': 'proud margin',
  'choices.pocket_leg': 'pocket leg',
  'choices.clearance': 'clearance',
  'choices.box_board': 'box board',
  promised: 'promised day',
  service: 'service',
};

type Tree = { [key: string]: Tree } | string | number | null | undefined;

function at(tree: Tree, path: string): string {
  const value = path
    .split('.')
    .reduce<Tree>((part, key) => (part && typeof part === 'object' ? part[key] : undefined), tree);
  return value === undefined || value === null || value === '' ? 'nothing' : String(value);
}

const rows = computed(() => {
  const open = conflict.value;
  if (!open) return [];
  const theirs = inputsOf(draftOf(open.theirs.inputs)) as unknown as Tree;
  return open.fields.map((field) => ({
    name: NAMES[field] ?? field.split('.').pop(),
    mine: at(open.mine as Tree, field),
    theirs: at(theirs, field),
  }));
});
</script>

<template>
  <section v-if="conflict" class="notice" role="alert" data-test="conflict">
    <strong>This shipment was changed in another tab or by someone else.</strong>
    What you typed here is not saved yet; nothing of it is lost.
    <table class="figure">
      <thead>
        <tr>
          <th scope="col" />
          <th scope="col">yours</th>
          <th scope="col">as it stands now</th>
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
    <BButton size="sm" variant="primary" @click="settle('mine')">Put yours on top</BButton>
    <BButton size="sm" @click="settle('theirs')">Take what stands</BButton>
  </section>
</template>

<style scoped>
.notice {
  margin-bottom: 12px;
  padding: 12px 16px;
  border-left: 4px solid var(--rowan);
  background: var(--paper);
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
