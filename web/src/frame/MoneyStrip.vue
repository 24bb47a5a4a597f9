<script setup lang="ts">
import { computed, ref } from 'vue';

import type { Cost, Money } from '@/api/types';
import { money } from '@/units/show';

/** What a parcel costs the studio, as one bar of four parts; a part that is pressed opens its lines. */
const { cost } = defineProps<{ cost: Cost }>();

type Part = 'materials' | 'work' | 'carrier' | 'damage';
const open = ref<Part>();

const parts = computed(() => [
  { key: 'materials' as const, name: 'materials', amount: cost.materials, lines: [] },
  {
    key: 'work' as const,
    name: 'work and overhead',
    amount: cost.work_and_overhead,
    lines: named({ work: cost.work, overhead: cost.overhead }),
  },
  {
    key: 'carrier' as const,
    name: 'to pay the carrier',
    amount: cost.to_carrier,
    lines: named({
      carriage: cost.carriage,
      surcharges: cost.surcharges,
      tax: cost.tax,
      cover: cost.cover,
    }),
  },
  { key: 'damage' as const, name: 'expected damage', amount: cost.expected_loss, lines: [] },
]);
/** The lines of a part that come to anything. */
function named(lines: Record<string, Money>): { name: string; amount: Money }[] {
  return Object.entries(lines)
    .filter(([, { amount }]) => Number(amount) !== 0)
    .map(([name, amount]) => ({ name, amount }));
}
/** How wide a part is drawn. */
const share = ({ amount }: Money) => {
  const whole = Number(cost.total.amount);
  return whole > 0 ? `${((Math.max(0, Number(amount)) / whole) * 100).toFixed(2)}%` : '0';
};
</script>

<template>
  <section class="strip" aria-label="What it costs" data-test="money">
    <p class="send">
      <strong class="figure" data-figure="to send">{{ money(cost.to_send) }}</strong> to send
    </p>
    <div class="bar" aria-hidden="true">
      <span
        v-for="part in parts"
        :key="part.key"
        :class="part.key"
        :style="{ width: share(part.amount) }"
      ></span>
    </div>
    <ul>
      <li v-for="part in parts" :key="part.key">
        <component
          :is="part.lines.length > 0 ? 'button' : 'span'"
          :type="part.lines.length > 0 ? 'button' : undefined"
          class="part"
          :aria-expanded="part.lines.length > 0 ? open === part.key : undefined"
          @click="open = open === part.key ? undefined : part.key"
        >
          <span class="swatch" :class="part.key" aria-hidden="true"></span>
          <span>{{ part.name }}</span>
          <span class="figure amount" :data-figure="part.name">{{ money(part.amount) }}</span>
        </component>
        <dl v-if="open === part.key && part.lines.length > 0" class="figure">
          <template v-for="line in part.lines" :key="line.name">
            <dt>{{ line.name }}</dt>
            <dd>{{ money(line.amount) }}</dd>
          </template>
        </dl>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.strip {
  padding: 8px 0;
  border-bottom: 1px solid var(--sedge);
}
.send {
  margin: 0 0 6px;
}
.send strong {
  font-size: 1.1875rem;
}
.bar {
  display: flex;
  height: 14px;
  overflow: hidden;
  border: 1px solid var(--peat);
  border-radius: 3px;
}
.bar span + span {
  border-left: 1px solid var(--peat);
}
.materials {
  background: var(--heather);
}
.work {
  background: var(--moss);
}
.carrier {
  background: var(--water);
}
.damage {
  background: repeating-linear-gradient(45deg, var(--rowan) 0 3px, var(--paper) 3px 6px);
}
ul {
  margin: 4px 0 0;
  padding: 0;
  list-style: none;
}
.part {
  display: flex;
  width: 100%;
  min-height: 32px;
  gap: 8px;
  align-items: center;
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  text-align: left;
}
button.part {
  min-height: 44px;
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
.amount {
  margin-left: auto;
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
