<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import { emptyOther } from '@/shipment/draft';
import { FIRST, usePieces } from '@/shipment/usePiece';
import { useShipment } from '@/shipment/useShipment';

/** The pieces of a shipment, one of which is in hand; more can be added to the same box. */
const which = defineModel<string>({ required: true });
const { draft, errors, missing, save } = useShipment();
const pieces = usePieces();

const MOST = 12;
const several = computed(() => pieces.value.length > 1);
/** What is still to be typed or put right of a piece, as its tab shows it. */
const wants = (key: string) => {
  const own = (path: string) =>
    key === FIRST ? !path.startsWith('others.') : path.startsWith(`others.${key}.`);
  return missing.value.some(own) || Object.keys(errors.value).some((path) => own(path) && several.value);
};

function add(): void {
  let number = 2;
  while (draft.others[`p${String(number)}`]) number += 1;
  const key = `p${String(number)}`;
  draft.others[key] = emptyOther();
  which.value = key;
}

function takeOut(): void {
  Reflect.deleteProperty(draft.others, which.value);
  which.value = FIRST;
  void save();
}
</script>

<template>
  <div class="pieces no-print" role="group" aria-label="Pieces in this box">
    <template v-if="several">
      <button
        v-for="{ key, title } in pieces"
        :key="key"
        type="button"
        class="tab"
        :class="{ here: key === which }"
        :aria-pressed="key === which"
        @click="which = key"
      >
        {{ title }}<span v-if="wants(key)" class="wants"> · not complete</span>
      </button>
    </template>
    <BButton v-if="pieces.length < MOST" size="sm" variant="outline-secondary" @click="add">
      Another piece in the same box
    </BButton>
    <BButton
      v-if="several && which !== FIRST"
      size="sm"
      variant="outline-secondary"
      data-test="take-out"
      @click="takeOut"
    >
      Take this one out
    </BButton>
  </div>
</template>

<style scoped>
.pieces {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin-bottom: 12px;
}
.tab {
  min-height: 44px;
  padding: 0 14px;
  border: 1px solid var(--sedge);
  border-bottom: 3px solid var(--sedge);
  background: none;
  color: inherit;
}
.here {
  border-bottom-color: var(--heather);
  background: var(--paper);
  font-weight: 600;
}
.wants {
  color: var(--amber-moss);
  font-weight: 400;
}
</style>
