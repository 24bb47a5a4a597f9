<script setup lang="ts">
import RedoIcon from '~icons/tabler/arrow-forward-up';
import UndoIcon from '~icons/tabler/arrow-back-up';

import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import { useKeys } from '@/keys/useKeys';
import { vSay } from '@/said/say';
import { useShipment } from '@/shipment/useShipment';

import { useUndone } from './undone';

const { state, stored, canUndo, canRedo } = useShipment();
const { undone, undo, redo } = useUndone();

const says = computed(() => {
  switch (state.value) {
    case 'opening':
      return 'Opening';
    case 'waiting':
    case 'saving':
      return 'Saving';
    case 'refused':
      return 'A value needs correcting';
    case 'unreachable':
      return 'Kept on this page, trying to save';
    case 'stale':
      return 'Changed elsewhere';
    default:
      return stored.value ? 'Saved' : 'Nothing typed yet';
  }
});

/** That it is saved again and again is told to nobody. */
const isTrouble = computed(() => ['refused', 'unreachable', 'stale'].includes(state.value));

useKeys({ z: () => void undo(), Z: () => void redo() });
</script>

<template>
  <div class="light no-print">
    <span v-if="undone && !isTrouble" class="says" data-test="undone">{{ undone }}</span>
    <span v-else v-say="isTrouble" class="says" :class="state" data-test="save-state">{{ says }}</span>
    <BButton size="sm" :disabled="!canUndo" @click="undo"><UndoIcon aria-hidden="true" /> Undo</BButton>
    <BButton size="sm" :disabled="!canRedo" @click="redo"><RedoIcon aria-hidden="true" /> Redo</BButton>
  </div>
</template>

<style scoped>
.light {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-left: auto;
}
.says {
  color: var(--peat-soft);
}
.refused,
.stale {
  color: var(--rowan);
  font-weight: 600;
}
.unreachable {
  color: var(--amber-moss);
  font-weight: 600;
}
</style>
