<script setup lang="ts">
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect';
import { computed, ref } from 'vue';

import type { Survival } from '@/api/types';
import CushionChart from '@/drawing/CushionChart.vue';
import { useUnits } from '@/units/useUnits';

/** The curve of a cushion before the face, with where this plan stands on it and what would do. */
const { survival } = defineProps<{ survival: Survival }>();
const units = useUnits();

const chosen = ref('');
const face = computed(() => survival.falls.find((fall) => fall.case === 'face'));
const cushion = computed(
  () =>
    survival.face.find(({ slot }) => slot === chosen.value) ??
    survival.face.find(({ slot }) => slot === face.value?.change_first) ??
    survival.face[0],
);
const answer = computed(() => face.value?.answer ?? undefined);
</script>

<template>
  <section v-if="cushion && face" class="curve">
    <div class="heading-row">
      <h2>Cushion curve</h2>
      <label v-if="survival.face.length > 1" class="no-print">
        <span class="visually-hidden">Cushion</span>
        <BFormSelect v-model="chosen" name="curve">
          <option value="">{{ cushion.material_name }}</option>
          <option v-for="one in survival.face" :key="one.slot" :value="one.slot">
            {{ one.material_name }}
          </option>
        </BFormSelect>
      </label>
    </div>
    <div class="panel">
      <CushionChart
        :curve="cushion.curve"
        :thickness="cushion.thickness_mm"
        :drop="face.customary_mm"
        :limit="survival.fragility.limit_g ?? undefined"
        :point="{ static_kpa: cushion.static_kpa, peak_g: face.peak_g }"
      />
    </div>
    <p class="soft figure">
      {{ cushion.material_name }}, {{ units.length(cushion.thickness_mm) }}, dropped flat from
      {{ units.height(face.customary_mm, true) }}. Dotted: outside what was tested.
      <template v-if="face.needed_mm != null">
        At this area, {{ units.length(face.needed_mm) }} is enough.
      </template>
      <template v-if="answer">
        Best: {{ answer.area_cm2.toFixed(0) }} cm² of {{ answer.foam_name }},
        {{ units.length(answer.thickness_mm) }}, cut as {{ units.length(answer.cut_mm)
        }}{{ answer.held_by_creep ? '; long load sets the area' : '' }}.
      </template>
    </p>
    <p class="soft">
      Starting values in the range that published curves show; first impact, near 20 °C, shock and not
      vibration.
    </p>
  </section>
</template>

<style scoped>
.curve {
  margin-top: 16px;
}
.form-select {
  width: auto;
  min-height: 44px;
  padding-block: 2px;
  font-size: var(--type-small);
}
p {
  margin: 4px 0 0;
  font-size: var(--type-small);
}
</style>
