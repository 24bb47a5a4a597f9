<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import type { Cutting } from '@/api/types';
import { vSay } from '@/said/say';
import { useUnits } from '@/units/useUnits';

/** What is to be known of a layout before anything is cut by it. */
const { cutting, begun } = defineProps<{ cutting: Cutting; begun: boolean }>();
const emit = defineEmits<{ again: [] }>();
const units = useUnits();
const changed = computed(() => cutting.shipments.filter((one) => one.changed));
const unmeasured = computed(() => cutting.shipments.filter((one) => !one.wrapped));
const tooLarge = computed(() =>
  cutting.laid.materials.flatMap(({ name, too_large }) => too_large.map((part) => ({ ...part, of: name }))),
);
</script>

<template>
  <p v-if="changed.length > 0" v-say class="notice" data-test="changed">
    The plan of {{ changed.map(({ title }) => `“${title || 'Untitled'}”`).join(', ') }} has changed since.
    <BButton v-if="!begun" size="sm" @click="emit('again')">Lay out anew</BButton>
    <span v-else>Take back what is marked as cut, to lay it out anew.</span>
  </p>
  <p v-if="cutting.of === 'boxes' && unmeasured.length > 0" class="soft">
    {{ unmeasured.map(({ title }) => title || 'Untitled').join(', ') }}: not measured wrapped yet, so the box
    is cut by the sums.
    <RouterLink
      v-for="one in unmeasured"
      :key="one.id"
      class="measure no-print"
      :to="`/shipments/${one.id}/box`"
      >Measure {{ one.title || 'it' }}</RouterLink
    >
  </p>
  <ul v-if="cutting.lacks.length > 0" v-say class="notice plain" data-test="lacks">
    <li v-for="lack in cutting.lacks" :key="`${lack.name} ${lack.width_mm}`">
      {{ lack.name }} {{ units.size(lack.width_mm, lack.height_mm) }}: {{ lack.needs }} to open,
      {{ lack.left }} on the shelf.
    </li>
  </ul>
  <ul v-if="tooLarge.length > 0" class="notice plain">
    <li v-for="(part, at) in tooLarge" :key="at">
      {{ part.layer }}, {{ units.size(part.width_mm, part.height_mm) }}: larger than every sheet of
      {{ part.of }}, even in parts. Put a larger sheet among the materials, or choose another board.
    </li>
  </ul>
</template>

<style scoped>
.plain {
  padding-left: 12px;
  list-style: none;
}
.measure {
  margin-right: 16px;
}
</style>
