<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import type { StackPiece } from '@/api/types';
import { layerWords } from '@/words/layers';
import { FIRST } from '@/shipment/usePiece';
import { useShipment } from '@/shipment/useShipment';
import { grams } from '@/units/show';
import { useUnits } from '@/units/useUnits';

/** The layers of one piece of several, each added or left out for it alone. */
const { piece } = defineProps<{ piece: StackPiece }>();
const { draft, errors, save } = useShipment();
const units = useUnits();

/** What is chosen for the first piece is chosen for the shipment: it holds for each that says nothing else. */
const chosen = computed(() => draft.others[piece.key]?.choices.layers ?? draft.choices.layers);
const free = (slot: string) => piece.slots.some((one) => one.slot === slot && one.free);
const away = computed(() => piece.slots.filter((slot) => slot.free && !slot.present));
const error = computed(() => errors.value[`others.${piece.key}.choices.layers`]);

function set(slot: string, to: boolean): void {
  chosen.value[slot] = to;
  void save();
}
</script>

<template>
  <div class="own">
    <ul>
      <li v-for="layer in piece.layers" :key="layer.slot">
        <span>{{ layerWords(layer, units).name }}</span>
        <span class="soft figure">{{ layerWords(layer, units).make }}, {{ grams(layer.weight.mass_g) }}</span>
        <BButton
          v-if="free(layer.slot)"
          size="sm"
          variant="outline-secondary"
          class="no-print"
          @click="set(layer.slot, false)"
        >
          Leave out
        </BButton>
      </li>
    </ul>
    <p v-if="away.length > 0" class="no-print">
      Add:
      <BButton
        v-for="slot in away"
        :key="slot.slot"
        size="sm"
        variant="outline-secondary"
        @click="set(slot.slot, true)"
      >
        {{ slot.name }}
      </BButton>
    </p>
    <p v-if="error" class="stop">{{ error }}</p>
    <p v-if="piece.key === FIRST" class="soft">
      A choice here applies to every piece without a choice of its own.
    </p>
  </div>
</template>

<style scoped>
.own {
  padding: 4px 0 4px 22px;
}
ul {
  margin: 0 0 8px;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: center;
  min-height: 44px;
}
li .soft {
  flex: 1;
  font-size: var(--type-small);
}
p {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin: 0 0 6px;
}
.stop {
  color: var(--rowan);
}
</style>
