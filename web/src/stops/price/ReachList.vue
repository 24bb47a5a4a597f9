<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';

import type { Choices, Reach } from '@/api/types';
import { oneIn } from '@/words/grammar';
import SumOf from '@/parts/SumOf.vue';

/** Changes of the plan that bring a cheaper price: each one press, taken back with z. */
const { reaches } = defineProps<{ reaches: Reach[] }>();
const emit = defineEmits<{ take: [choices: Choices] }>();
</script>

<template>
  <ul v-if="reaches.length > 0" class="figure">
    <li v-for="reach in reaches" :key="reach.label">
      <span>
        <strong>{{ reach.label }}</strong>
        <span class="soft">
          <template v-if="reach.saves">saves <SumOf of="difference" :sum="reach.saves" /> in total</template>
          <template v-else>and it is taken</template>; about {{ oneIn(reach.odds.about) }} arrive damaged
        </span>
      </span>
      <BButton
        size="sm"
        class="no-print"
        :aria-label="`Apply: ${reach.label}`"
        @click="emit('take', reach.choices)"
        >Apply</BButton
      >
    </li>
  </ul>
  <p v-else class="soft">No change of this plan is as safe.</p>
</template>

<style scoped>
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
  padding: 8px 0;
  border-top: 1px solid var(--sedge);
}
li strong,
li .soft {
  display: block;
}
</style>
