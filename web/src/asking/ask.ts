// The one question that stops somebody: asked in a dialog, answered by one of two buttons.
import { createGlobalState } from '@vueuse/core';
import { shallowRef } from 'vue';
import type { ShallowRef } from 'vue';

export interface Question {
  title: string;
  /** What is lost by going on. */
  says: string;
  /** Leaves everything as it is. */
  stay: string;
  /** Goes on. */
  goOn: string;
}

export const useAsking = createGlobalState(() => ({
  open: shallowRef<{ question: Question; settle: (goOn: boolean) => void }>() as ShallowRef<
    { question: Question; settle: (goOn: boolean) => void } | undefined
  >,
}));

/** Asks, and says whether to go on; a question that is still open is answered with staying. */
export function ask(question: Question): Promise<boolean> {
  const { open } = useAsking();
  return new Promise((settled) => {
    open.value?.settle(false);
    open.value = { question, settle: settled };
  });
}

/** Answers the question that is open. */
export function answerAsked(goOn: boolean): void {
  const { open } = useAsking();
  const now = open.value;
  open.value = undefined;
  now?.settle(goOn);
}
