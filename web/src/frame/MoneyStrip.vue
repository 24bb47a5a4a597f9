<script setup lang="ts">
import { computed } from 'vue';

import type { Cost } from '@/api/types';
import SumOf from '@/parts/SumOf.vue';

import { COST_NAMES } from './amounts';
import { isSome, PARTS } from './money';
import type { PartName } from './money';
import MoneyBar from './MoneyBar.vue';

/** What a parcel costs the studio, as one bar of four parts with their names; a part that is pressed opens its lines. */
const { cost } = defineProps<{ cost: Cost }>();
const open = defineModel<PartName>('open');

const parts = computed(() =>
  PARTS.map((part) => ({ ...part, lines: part.lines.filter((line) => isSome(cost[line])) })),
);
</script>

<template>
  <section class="strip" aria-label="Costs" data-test="money">
    <p class="send">
      <strong><SumOf of="to_send" :sum="cost.to_send" data-figure="to send" /></strong> to send
    </p>
    <MoneyBar :cost="cost" :open="open" aria-hidden="true" />
    <ul>
      <li v-for="part in parts" :key="part.key">
        <component
          :is="part.lines.length > 0 ? 'button' : 'span'"
          :type="part.lines.length > 0 ? 'button' : undefined"
          class="part"
          :aria-expanded="part.lines.length > 0 ? open === part.key : undefined"
          @click="open = open === part.key ? undefined : part.key"
        >
          <span class="swatch" :class="`money-${part.key}`" aria-hidden="true"></span>
          <span>{{ part.name }}</span>
          <SumOf :of="part.sum" :sum="cost[part.sum]" class="amount" :data-figure="part.name" />
        </component>
        <dl v-if="open === part.key && part.lines.length > 0" class="figure">
          <template v-for="line in part.lines" :key="line">
            <dt>{{ COST_NAMES[line] }}</dt>
            <dd><SumOf :of="line" :sum="cost[line]" /></dd>
          </template>
        </dl>
      </li>
    </ul>
    <p v-if="isSome(cost.expected_loss)" class="all">
      <span>{{ COST_NAMES.total }}</span>
      <SumOf of="total" :sum="cost.total" class="amount" />
    </p>
  </section>
</template>

<style scoped>
.strip {
  padding: 8px 0;
}
.send {
  margin: 0 0 6px;
}
.send strong {
  font-size: var(--type-lead);
}
ul {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(118px, 100%), 1fr));
  gap: 4px 12px;
  margin: 4px 0 0;
  padding: 0;
  list-style: none;
}
.part {
  display: grid;
  width: 100%;
  min-height: 44px;
  grid-template-columns: 14px minmax(0, 1fr);
  gap: 0 8px;
  align-items: center;
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  text-align: left;
}
button.part {
  text-decoration: underline;
  text-decoration-color: var(--sedge);
  text-underline-offset: 4px;
}
.swatch {
  width: 14px;
  height: 14px;
  flex: none;
  border: 1px solid var(--peat);
  border-radius: 2px;
}
.part .amount {
  grid-column: 2;
  font-weight: 600;
}
.all .amount {
  margin-left: 12px;
}
.all {
  display: flex;
  margin: 4px 0 0;
  padding-top: 4px;
  border-top: 1px solid var(--peat);
  font-weight: 600;
}
dl {
  display: grid;
  margin: 0 0 8px 22px;
  grid-template-columns: 1fr auto;
  gap: 2px 12px;
}
dt {
  font-weight: 400;
}
dd {
  margin: 0;
}
</style>
