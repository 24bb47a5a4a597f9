<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import CushionChart from '@/drawing/CushionChart.vue';
import type { CushionCurve } from '@/api/types';
import TextField from '@/parts/TextField.vue';

import MaterialField from './MaterialField.vue';
import { SHELF_FIELDS, withPart } from './shelves';
import type { Material, Shelf } from './shelves';

const { shelf, isNew, errors } = defineProps<{
  shelf: Shelf;
  isNew: boolean;
  errors: Record<string, string>;
}>();
const emit = defineEmits<{ save: [material: Material]; remove: [id: string]; close: [] }>();
const material = defineModel<Material>({ required: true });

const DRAWN = { thickness: 50, drop: 760 };

const curve = computed(() => material.value.curve as CushionCurve | undefined);
const thickness = computed(
  () => (material.value.loaded_thickness_mm as number | undefined) ?? DRAWN.thickness,
);

function set(key: string, value: unknown): void {
  material.value = withPart(material.value, key, value);
}
</script>

<template>
  <form class="editor panel" @submit.prevent="emit('save', material)">
    <div class="heading-row">
      <h2>{{ isNew ? `New ${shelf.one}` : material.name }}</h2>
      <BButton size="sm" variant="link" @click="emit('close')">Close</BButton>
    </div>
    <div class="fields">
      <TextField
        :model-value="material.name"
        label="Name"
        name="material.name"
        :error="errors.name"
        @update:model-value="set('name', $event)"
      />
      <TextField
        v-if="isNew"
        :model-value="material.id"
        label="Id"
        name="material.id"
        hint="small letters, digits, dashes; it never changes"
        :error="errors.id"
        @update:model-value="set('id', $event)"
      />
      <MaterialField
        v-for="field in [...shelf.fields, ...SHELF_FIELDS]"
        :key="field.key"
        :field="field"
        :material="material"
        :errors="errors"
        @set="set"
      />
    </div>
    <template v-if="curve && curve.a_kpa > 0 && curve.b_m3_per_kj > 0">
      <CushionChart :curve="curve" :thickness="thickness" :drop="DRAWN.drop" />
      <p class="soft">{{ thickness }} mm, dropped from {{ DRAWN.drop }} mm. First impact, near 20 °C.</p>
    </template>
    <div class="acts">
      <BButton type="submit" variant="primary">{{
        isNew ? 'Put it on the shelf' : 'Save the material'
      }}</BButton>
      <BButton v-if="!isNew" variant="link" @click="emit('remove', material.id)">Delete for good</BButton>
    </div>
  </form>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.editor {
  position: sticky;
  top: 12px;
  max-height: calc(100vh - 24px);
  overflow: auto;
  padding: 8px 16px 16px;
}
.fields {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0 14px;
}
.acts {
  display: flex;
  gap: 12px;
  margin-top: 8px;
}
@include at.phone {
  .fields {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
