// Playing the folding of a blank: which picture is shown, and what is done there.
import { useMediaQuery, useRafFn } from '@vueuse/core';
import { computed, shallowRef, watch } from 'vue';
import type { Ref } from 'vue';

import type { Folding } from '@/api/types';

/** A step is folded in so long. */
const STEP_MS = 1400;

/** Plays the folding of a part from flat to folded, step by step. */
export function useFolding(folding: Readonly<Ref<Folding | undefined>>) {
  const still = useMediaQuery('(prefers-reduced-motion: reduce)');
  const at = shallowRef(0);
  const last = computed(() => Math.max((folding.value?.frames.length ?? 1) - 1, 0));
  const steps = computed(() => folding.value?.steps ?? []);
  /** How many pictures a step has; the first is the flat blank, which has none. */
  const each = computed(() => Math.max(last.value / Math.max(steps.value.length - 1, 1), 1));
  const step = computed(() => Math.min(Math.ceil(at.value / each.value - 1e-9), steps.value.length - 1));

  const { isActive, pause, resume } = useRafFn(
    ({ delta }) => {
      at.value = Math.min(at.value + (delta / STEP_MS) * each.value, last.value);
      if (at.value >= last.value) pause();
    },
    { immediate: false },
  );

  watch(folding, () => {
    pause();
    at.value = 0;
  });

  return {
    at,
    last,
    steps,
    step,
    playing: isActive,
    /** Goes to the end of a step. */
    goTo: (place: number) => {
      pause();
      at.value = place * each.value;
    },
    /** Plays on, from the beginning where it is folded; one step at a time where nothing should move. */
    play: () => {
      if (at.value >= last.value) at.value = 0;
      if (still.value) at.value = Math.min((step.value + 1) * each.value, last.value);
      else resume();
    },
    pause,
  };
}
