<script setup lang="ts">
import { BModal } from 'bootstrap-vue-next/components/BModal';
import { computed } from 'vue';
import { useRoute } from 'vue-router';

import { KEYS, useKeysWork } from '@/keys/useKeys';
import TickField from '@/parts/TickField.vue';

import HelpDrawing from './HelpDrawing.vue';
import { HELP } from './pages';

const work = useKeysWork();
const shown = defineModel<boolean>({ required: true });
const route = useRoute();
const page = computed(() => HELP[String(route.name)]);
</script>

<template>
  <BModal v-model="shown" :title="page?.title ?? 'Help'" no-footer>
    <div v-if="page" data-test="help">
      <HelpDrawing :picture="page.picture" />
      <p v-for="sentence in page.says" :key="sentence" class="says">{{ sentence }}</p>
    </div>
    <h2>Keys</h2>
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
    <p>Third-party <a href="/about/licences">licences</a>.</p>
  </BModal>
</template>

<style scoped>
.says {
  margin-bottom: 8px;
}
h2 {
  margin: 20px 0 8px;
  font-size: var(--type-lead);
}
.keys {
  display: grid;
  grid-template-columns: 80px 1fr;
  gap: 8px 16px;
}
dd {
  margin: 0;
}
</style>
