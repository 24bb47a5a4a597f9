<script setup lang="ts">
import { ref } from 'vue';

import type { Survival } from '@/api/types';
import { useShipment } from '@/shipment/useShipment';

import FaceCurve from './FaceCurve.vue';
import SurvivalBars from './SurvivalBars.vue';

/** What stands behind the odds of falls, for whoever wants the numbers. */
defineProps<{ survival: Survival }>();
const emit = defineEmits<{ look: [slot: string] }>();
const open = ref(false);
useShipment().look('survival', open);
</script>

<template>
  <details class="engineer" :open="open" @toggle="open = ($event.target as HTMLDetailsElement).open">
    <summary>
      Engineer’s view <span class="soft">drop survived, shock, curve, press-in and stack</span>
    </summary>
    <p class="soft">
      It assumes first impacts near 20 °C and flat drops from standard heights. A height that is not met is
      not a fault: most parcels never fall so far, and flat ones hardly ever fall flat.
    </p>
    <div v-if="open" class="parts">
      <SurvivalBars :survival="survival" @look="emit('look', $event)" />
      <FaceCurve v-if="survival.face.length > 0" :survival="survival" />
    </div>
  </details>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.engineer {
  grid-column: 1 / -1;
  margin-top: 8px;
  border-top: 1px solid var(--sedge);
}
summary {
  padding: 8px 0;
  font-family: var(--heading);
  font-size: var(--type-strong);
  font-weight: 600;
  cursor: pointer;
}
summary .soft {
  font-family: var(--bs-body-font-family, inherit);
  font-size: var(--type-small);
  font-weight: 400;
}
.parts {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.06fr);
  gap: 20px;
  align-items: start;
}
@include at.tablet {
  .parts {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
