<script setup lang="ts">
import { BFormTextarea } from 'bootstrap-vue-next/components/BFormTextarea';
import { computed, ref, watch } from 'vue';

import DraftField from '@/parts/DraftField.vue';
import FieldShell from '@/parts/FieldShell.vue';
import { valueInSentence } from '@/shipment/fields';
import { usePiece } from '@/shipment/usePiece';
import { useShipment } from '@/shipment/useShipment';
import { kilograms } from '@/units/show';

const { errors, plan } = useShipment();
const { key, piece, at } = usePiece();

const FIELDS = ['outline', 'bearing_points', 'count', 'weight', 'limit_g', 'hardware', 'notes'] as const;

const SEVERAL = ['loose_paper', 'loose_canvas', 'panel_set'];
const several = computed(() => SEVERAL.includes(piece.value.construction));
const shaped = computed(() => piece.value.outline !== 'rectangle');
const estimate = computed(() => {
  const own = plan.value?.stack?.pieces.find((one) => one.key === key.value);
  const weight = own ? own.weight : plan.value?.piece_weight;
  return weight && !piece.value.weight ? kilograms(weight.mass_g) : '';
});
const limit = computed(() => {
  // Of several pieces the plan tells the frailest one's only.
  const fragility = plan.value?.stack ? undefined : plan.value?.survival.fragility;
  const known = fragility?.limit_g;
  return known && !fragility?.set ? `${known.toFixed(0)}, by its kind` : '';
});
const refused = computed(() => FIELDS.some((field) => errors.value[at(`piece.${field}`)]));

/** What was said already, for the closed lid. */
const said = computed(() => {
  const { outline, count, irreplaceable, weight, hardware, notes } = piece.value;
  const words = [
    shaped.value && valueInSentence('piece.outline', outline).toLowerCase(),
    (count ?? 1) > 1 && `${count} of them`,
    irreplaceable && 'can’t be replaced',
    weight && `weighed ${weight}`,
    hardware && 'hardware',
    notes && 'condition notes',
  ];
  return words.filter(Boolean).join(' · ') || 'outline, weight, hardware, top edge, notes';
});

// What a kind of piece cannot be told without lies open.
const open = ref(several.value);
watch(several, (now) => {
  if (now) open.value = true;
});
</script>

<template>
  <details :open="open || refused" @toggle="open = ($event.target as HTMLDetailsElement).open">
    <summary>
      More about the piece <span class="soft">{{ said }}</span>
    </summary>
    <div class="triple">
      <DraftField path="piece.count" />
      <DraftField path="piece.outline" />
      <DraftField
        v-if="shaped && piece.outline !== 'arched'"
        path="piece.bearing_points"
        :label="piece.outline === 'polygon' ? 'Sides' : undefined"
      />
      <DraftField path="piece.weight" :hint="estimate ? `empty: estimated, ${estimate}` : undefined" />
      <DraftField path="piece.limit_g" :placeholder="limit" />
      <DraftField path="piece.hardware" />
      <DraftField path="piece.top" />
      <DraftField path="piece.irreplaceable" />
    </div>
    <FieldShell v-slot="{ id, described }" label="Condition notes" :error="errors[at('piece.notes')]">
      <BFormTextarea
        :id="id"
        v-model="piece.notes"
        :name="at('piece.notes')"
        rows="2"
        :aria-describedby="described"
      />
    </FieldShell>
  </details>
</template>

<style scoped lang="scss">
@use '@/styles/at';

details {
  margin-bottom: 12px;
  padding: 8px 0 0;
  border-top: 1px solid var(--sedge);
}
summary {
  min-height: 44px;
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
.triple {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 0 12px;
  margin-top: 8px;
}
.tick {
  margin-top: 24px;
}
@include at.phone {
  .triple {
    grid-template-columns: minmax(0, 1fr);
  }
  .tick {
    margin-top: 0;
  }
}
</style>
