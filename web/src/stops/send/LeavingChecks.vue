<script setup lang="ts">
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox';

import type { Leaving } from '@/api/types';
import { STOPS } from '@/shipment/stops';
import { useShipment } from '@/shipment/useShipment';

/** One list before a parcel leaves: facts with a mark, each with the stop at which it is put right, and boxes for what a person confirms. */
const { checks } = defineProps<{ checks: Leaving['checks'] }>();
const emit = defineEmits<{ confirm: [key: string, so: boolean] }>();
const { id } = useShipment();
const titled = (stop: string) => STOPS.find(({ name }) => name === stop)?.title ?? stop;
/** What the box of a check is called among the fields of the page. */
const FIELDS: Partial<Record<string, string>> = {
  addresses: 'sending.addresses_read',
  marked: 'sending.marked',
};
const state = ({ done, needed }: Leaving['checks'][number]) =>
  done ? 'is-done' : needed ? 'is-needed' : 'is-open';
</script>

<template>
  <ul class="checks">
    <li
      v-for="check in checks"
      :key="check.key"
      :data-check="check.key"
      :class="[state(check), { confirm: check.confirm }]"
    >
      <BFormCheckbox
        v-if="check.confirm"
        :model-value="check.done"
        :name="FIELDS[check.key] ?? check.key"
        @update:model-value="(so) => emit('confirm', check.key, so === true)"
        >{{ check.says }}</BFormCheckbox
      >
      <template v-else>
        <span class="mark" aria-hidden="true">{{ check.done ? '✓' : check.needed ? '!' : '–' }}</span>
        <span>
          <span class="visually-hidden">{{
            check.done ? 'Done: ' : check.needed ? 'Needed: ' : 'Open: '
          }}</span>
          {{ check.says }}
          <RouterLink
            v-if="!check.done && check.at"
            :to="{ name: check.at, params: { id } }"
            class="no-print"
          >
            Go to {{ titled(check.at) }}
          </RouterLink>
        </span>
      </template>
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
  align-items: baseline;
  min-height: 44px;
  padding: 8px 0;
  border-bottom: 1px solid var(--sedge);
}
li.confirm {
  grid-template-columns: minmax(0, 1fr);
}
.mark {
  width: 20px;
  color: var(--peat-soft);
  font-weight: 700;
  text-align: center;
}
.is-done .mark {
  color: var(--moss);
}
.is-needed .mark {
  color: var(--rowan);
}
</style>
