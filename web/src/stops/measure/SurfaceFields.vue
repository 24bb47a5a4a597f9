<script setup lang="ts">
import { computed } from 'vue';

import { CONDITIONS, MEDIA, PAINTS, PANES } from '@/frame/words';
import ChoiceField from '@/parts/ChoiceField.vue';
import TextField from '@/parts/TextField.vue';
import TickField from '@/parts/TickField.vue';
import { useShipment } from '@/shipment/useShipment';
import { dayAndYear } from '@/units/show';

const { draft, errors } = useShipment();

const mirror = computed(() => draft.piece.construction === 'mirror');
const glass = computed(() => mirror.value || draft.piece.construction === 'framed_under_glass');
</script>

<template>
  <fieldset>
    <legend>Surface</legend>
    <div v-if="!mirror" class="triple first">
      <ChoiceField
        v-model="draft.piece.medium"
        label="Medium"
        name="piece.medium"
        :choices="MEDIA"
        empty="Choose"
        :error="errors['piece.medium']"
      />
      <ChoiceField v-model="draft.piece.paint" label="Paint" name="piece.paint" :choices="PAINTS" />
      <TextField
        v-model="draft.piece.finished"
        label="Finished on"
        name="piece.finished"
        type="date"
        :error="errors['piece.finished']"
        :hint="draft.piece.finished ? dayAndYear(draft.piece.finished) : undefined"
      />
    </div>
    <div class="triple">
      <ChoiceField
        v-model="draft.piece.condition"
        label="Condition"
        name="piece.condition"
        :choices="CONDITIONS"
      />
      <TickField v-if="!mirror" v-model="draft.piece.varnished" label="Varnished" name="piece.varnished" />
      <TextField
        v-if="!mirror && draft.piece.varnished"
        v-model="draft.piece.varnished_on"
        label="Varnished on"
        name="piece.varnished_on"
        type="date"
        :error="errors['piece.varnished_on']"
        :hint="draft.piece.varnished_on ? dayAndYear(draft.piece.varnished_on) : undefined"
      />
      <ChoiceField
        v-if="draft.piece.construction === 'framed_under_glass'"
        v-model="draft.piece.pane"
        label="Pane"
        name="piece.pane"
        :choices="PANES"
      />
      <TickField
        v-if="glass"
        v-model="draft.piece.coated_glass"
        label="The glass is coated"
        name="piece.coated_glass"
      />
    </div>
  </fieldset>
</template>

<style scoped>
.triple {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 0 12px;
}
.first {
  grid-template-columns: minmax(0, 1.3fr) minmax(0, 1fr) minmax(0, 1.05fr);
}
.tick {
  margin-top: 24px;
}
legend {
  font-family: var(--heading);
  font-size: 1.0625rem;
  font-weight: 600;
}
@media (max-width: 640px) {
  .triple,
  .first {
    grid-template-columns: minmax(0, 1fr);
  }
  .tick {
    margin-top: 0;
  }
}
</style>
