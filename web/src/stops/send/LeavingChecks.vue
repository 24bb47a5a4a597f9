<script setup lang="ts">
import type { Leaving } from '@/api/types';
import { STOPS } from '@/shipment/stops';
import { useShipment } from '@/shipment/useShipment';

/** What is looked at before a parcel leaves, each with the stop at which it is put right. */
const { checks } = defineProps<{ checks: Leaving['checks'] }>();
const { id } = useShipment();
const titled = (stop: string) => STOPS.find(({ name }) => name === stop)?.title ?? stop;
</script>

<template>
  <ul class="checks">
    <li
      v-for="check in checks"
      :key="check.key"
      :data-check="check.key"
      :class="check.done ? 'is-done' : check.needed ? 'is-needed' : 'is-open'"
    >
      <span class="mark" aria-hidden="true">{{ check.done ? '✓' : check.needed ? '!' : '' }}</span>
      <span>
        <span class="visually-hidden">{{
          check.done ? 'Done: ' : check.needed ? 'Needed: ' : 'Worth a look: '
        }}</span>
        {{ check.says }}
        <RouterLink v-if="!check.done && check.at" :to="{ name: check.at, params: { id } }" class="no-print">
          Go to {{ titled(check.at) }}
        </RouterLink>
      </span>
    </li>
  </ul>
</template>

<style scoped>
.checks {
  margin: 0 0 8px;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 26px minmax(0, 1fr);
  gap: 4px;
  padding: 6px 0;
  border-bottom: 1px solid var(--sedge);
}
.mark {
  width: 20px;
  height: 20px;
  border-radius: 3px;
  background: var(--sedge);
  font-weight: 700;
  line-height: 20px;
  text-align: center;
}
.is-done .mark {
  background: var(--lichen);
  color: var(--moss);
}
.is-needed .mark {
  background: var(--rowan);
  color: var(--paper);
}
.is-open .mark {
  border: 2px solid var(--peat-soft);
  background: none;
}
</style>
