<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';

import type { ShelfLine } from '@/api/types';
import ChangeFigures from '@/parts/ChangeFigures.vue';
import { useShipment } from '@/shipment/useShipment';
import { dayAndYear } from '@/units/show';

import { useTakes } from './useTakes';

/** A material that is short: how much of it there is, until when to order it, and what takes its place. */
const { line } = defineProps<{ line: ShelfLine }>();
const { choose } = useShipment();
const { named, counted } = useTakes();
</script>

<template>
  <li :data-short="line.name">
    <strong>{{ named(line) }}</strong>: takes {{ counted(line.needs, line) }}, there
    {{ line.left === 1 ? 'is' : 'are' }} {{ counted(line.left ?? 0, line) }}.
    <span v-if="line.order_by" :class="{ late: line.too_late }">
      {{
        line.too_late
          ? `Ordered today it comes too late for the promise (${line.lead_days} working days).`
          : `Order ${line.supplier ? `from ${line.supplier} ` : ''}by ${dayAndYear(line.order_by)}, and the promise holds.`
      }}
    </span>
    <span v-else-if="line.lead_days"> {{ line.supplier }} needs {{ line.lead_days }} working days. </span>
    <template v-if="line.substitute">
      <BButton
        v-if="line.substitute.choices"
        size="sm"
        class="no-print"
        @click="choose(line.substitute.choices)"
      >
        Use {{ line.substitute.name }} instead
      </BButton>
      <span v-else>{{ line.substitute.name }} takes its place.</span>
      <ChangeFigures v-if="line.substitute.change" :change="line.substitute.change" />
      <span v-if="line.substitute.choices && !line.substitute.helps" class="soft">That is short too.</span>
    </template>
  </li>
</template>

<style scoped>
li {
  padding: 6px 10px;
  border-left: 4px solid var(--amber-moss);
  margin-bottom: 6px;
  background: var(--paper);
}
.late {
  color: var(--rowan);
}
</style>
