// Playing the folding of a blank: which picture is shown, and what is done there.
import { useMediaQuery, useRafFn } from '@vueuse/core';
import { computed, shallowRef, watch } from 'vue';
import type { Ref } from 'vue';

import type { Folding } from '@/api/types';

/** An act is shown so long. */
const STEP_MS = 1400;

/** Plays what is done to a part, act by act, from flat to closed. */
export function useFolding(folding: Readonly<Ref<Folding | undefined>>) {
  const still = useMediaQuery('(prefers-reduced-motion: reduce)');
  /** How many acts are done, with the share of the one that is being done. */
  const at = shallowRef(0);
  const steps = computed(() => folding.value?.steps ?? []);
  const last = computed(() => steps.value.length);
  const step = computed(() => Math.max(Math.ceil(at.value - 1e-9) - 1, 0));
  /** The picture that is shown, or between which two: an act that folds nothing leaves the net as it is. */
  const picture = computed(() => {
    const pictures = (folding.value?.frames.length ?? 1) - 1;
    const folds = steps.value.at(-1)?.folded_to ?? 0;
    const from = steps.value[step.value - 1]?.folded_to ?? 0;
    const to = steps.value[step.value]?.folded_to ?? from;
    return (from + (to - from) * (at.value - step.value)) * (pictures / Math.max(folds, 1));
  });

  const { isActive, pause, resume } = useRafFn(
    ({ delta }) => {
      at.value = Math.min(at.value + delta / STEP_MS, last.value);
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
    picture,
    playing: isActive,
    /** Goes to the end of a step. */
    goTo: (place: number) => {
      pause();
      at.value = place + 1;
    },
    /** Plays on, from the beginning where it is folded; one step at a time where nothing should move. */
    play: () => {
      if (at.value >= last.value) at.value = 0;
      if (still.value) at.value = Math.floor(at.value + 1e-9) + 1;
      else resume();
    },
    pause,
  };
}
