<script setup lang="ts">
import type { LayerSlot } from '@/api/types';
import ChangeFigures from '@/parts/ChangeFigures.vue';
import { useShipment } from '@/shipment/useShipment';
import { useWays } from '@/shipment/useWays';

/** What a layer could be instead, each with what it would change. */
const { place } = defineProps<{ place: LayerSlot }>();
const { choose } = useShipment();
const { alternatives: offers, away } = useWays(() => place);
</script>

<template>
  <div class="offers no-print">
    <p v-if="away" class="soft">Alternatives can’t be calculated just now.</p>
    <p v-else-if="!offers" class="soft">Working out alternatives</p>
    <ul v-else-if="offers.length > 0" aria-label="Alternatives">
      <li v-for="offer in offers" :key="offer.label">
        <button
          type="button"
          :class="{ chosen: offer.chosen }"
          :disabled="Boolean(offer.refused)"
          :aria-pressed="offer.chosen"
          @click="choose(offer.choices)"
        >
          <strong>{{ offer.label }}</strong>
          <span v-if="offer.refused" class="refused">{{ offer.refused }}</span>
          <span v-else-if="offer.chosen" class="soft">as it is</span>
          <ChangeFigures v-else-if="offer.change" :change="offer.change" />
        </button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(165px, 1fr));
  gap: 8px;
  margin: 0 0 8px;
  padding: 0;
  list-style: none;
}
button {
  display: flex;
  flex-direction: column;
  gap: 2px;
  width: 100%;
  height: 100%;
  min-height: 60px;
  padding: 6px 10px;
  border: 1px solid var(--sedge);
  border-radius: var(--corner);
  background: var(--bog-cotton);
  color: var(--peat);
  line-height: 1.3;
  text-align: left;
}
button:not(:disabled):hover {
  border-color: var(--heather);
}
.chosen {
  border-color: var(--moss);
  background: var(--lichen);
}
button:disabled {
  color: var(--peat-soft);
}
.refused {
  color: var(--rowan);
  font-size: var(--type-small);
}
</style>
