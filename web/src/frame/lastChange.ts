// What the last change did to a figure, for as long as somebody may still look there.
import { useTimeoutFn } from '@vueuse/core';
import { ref, watch } from 'vue';
import type { Ref } from 'vue';

import { useSaid } from '@/said/say';

const SHOWN_FOR_MS = 6000;
/** Less than this is the dust of the sum, not a change. */
const LEAST_CHANGE = 0.005;

export interface LastChange {
  /** In words, for a few seconds. */
  by: Ref<string>;
  better: Ref<boolean>;
}

/** Watches a figure; `says` is what is read out of it. */
export function useLastChange(figure: {
  value: () => number | undefined;
  words: (by: number) => string;
  says: () => string;
  moreIsBetter?: boolean;
}): LastChange {
  const by = ref('');
  const better = ref(false);
  const { say } = useSaid();
  const { start } = useTimeoutFn(() => (by.value = ''), SHOWN_FOR_MS, { immediate: false });
  watch(figure.value, (now, before) => {
    if (now === undefined || before === undefined || Math.abs(now - before) < LEAST_CHANGE) return;
    by.value = figure.words(now - before);
    better.value = figure.moreIsBetter ? now > before : now < before;
    say(`${figure.says()}, ${by.value}`);
    start();
  });
  return { by, better };
}
