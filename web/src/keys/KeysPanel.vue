<script setup lang="ts">
import { BModal } from 'bootstrap-vue-next/components/BModal';

import TickField from '@/parts/TickField.vue';

import { KEYS, useKeysWork } from './useKeys';

const work = useKeysWork();
const shown = defineModel<boolean>({ required: true });
</script>

<template>
  <BModal v-model="shown" title="Keys" no-footer>
    <TickField v-model="work" label="These keys work" name="keys-work" />
    <dl class="keys" :class="{ soft: !work }">
      <template v-for="[key, does] in KEYS" :key="key">
        <dt>
          <kbd>{{ key }}</kbd>
        </dt>
        <dd>{{ does }}</dd>
      </template>
    </dl>
    <p class="soft">They rest while you type in a field: Esc leaves it.</p>
    <p>Scripts can use the same figures: <a href="/about/api">the API, described</a>.</p>
    <p>What it is made with: <a href="/about/licences">licences</a>.</p>
  </BModal>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: 80px 1fr;
  gap: 8px 16px;
}
dd {
  margin: 0;
}
</style>
