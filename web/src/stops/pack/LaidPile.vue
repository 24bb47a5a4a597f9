<script setup lang="ts">
import { computed } from 'vue';

import type { Layer, PackStepView, Plan } from '@/api/types';
import { swatchOf } from '@/drawing/swatch';
import MaterialBand from '@/drawing/MaterialBand.vue';
import { counted } from '@/words/grammar';

import { layerOf } from './steps';
import type { usePacking } from './usePacking';

/** What lies already, layer on layer; the one that was laid last settles on the others. */
const { steps, plan, standing } = defineProps<{
  steps: PackStepView[];
  plan: Plan;
  standing: ReturnType<typeof usePacking>['standing'];
}>();

const [WIDE, THICK, MOST] = [150, 10, 12];

const laid = computed(() => {
  const found = new Map<string, Layer>();
  for (const step of steps) {
    if (step.stage === 'cut' || standing(step) !== 'done') continue;
    const layer = layerOf(step, plan);
    if (layer) found.set(`${step.piece ?? ''}${layer.slot}`, layer);
  }
  return [...found].slice(-MOST).map(([key, layer]) => ({ key, layer }));
});
/** As high as what lies there, and room for the next one to come down. */
const high = computed(() => (laid.value.length + 1) * THICK);
const bands = computed(() =>
  laid.value.map(({ key, layer }, at) => ({
    key,
    band: {
      ...swatchOf(layer),
      x: 0,
      y: high.value - (at + 1) * THICK,
      width: WIDE,
      height: THICK - 2,
      turns: 1,
    },
  })),
);
</script>

<template>
  <svg
    :viewBox="`0 0 ${WIDE} ${high}`"
    class="pile"
    role="img"
    :aria-label="`${counted(laid.length, 'layer')} laid`"
    data-test="pile"
  >
    <path :d="`M0 ${high - 0.5}H${WIDE}`" class="ground" />
    <TransitionGroup name="settle" tag="g">
      <g v-for="{ key, band } in bands" :key="key"><MaterialBand :band="band" /></g>
    </TransitionGroup>
  </svg>
</template>

<style scoped>
.pile {
  display: block;
  width: 100%;
  height: auto;
  overflow: visible;
}
.ground {
  stroke: var(--peat);
}
.settle-enter-active {
  transition:
    transform 200ms ease-out,
    opacity 200ms ease-out;
}
.settle-enter-from {
  opacity: 0;
  transform: translateY(-18px);
}
@media (prefers-reduced-motion: reduce) {
  .settle-enter-active {
    transition: none;
  }
}
</style>
