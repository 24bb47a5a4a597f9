// The foot of a stop: what is in the way of the shipment, as the server tells it, a hint of the page, and the one verb that goes on.
import { createInjectionState } from '@vueuse/core';
import { computed, onScopeDispose, shallowRef } from 'vue';
import type { RouteLocationRaw } from 'vue-router';

/** What is pressed: it does something here, leads somewhere, or opens a paper. */
export interface Act {
  text: string;
  press?: () => unknown;
  to?: RouteLocationRaw;
  paper?: string;
}

/** The one next step of a page. */
export interface Verb extends Act {
  disabled?: boolean;
}

/** A sentence beside the verb, with its way out. */
export interface Hint {
  says: string;
  level?: 'stop' | 'mind' | 'note';
  way?: Act;
}

export interface Said {
  verb: Verb;
  /** What the verb waits for or does, below everything that is in the way of the shipment. */
  hint?: Hint;
  /** The page itself shows the strip of money. */
  showsMoney?: boolean;
  /** A second way on, where there are two. */
  other?: Act;
}

const [provideFoot, injectFoot] = createInjectionState(() => {
  const says = shallowRef<() => Said | undefined>();
  return { says, said: computed(() => says.value?.()) };
});

export { provideFoot };

/** Returns what the page above the foot says. */
export function useFoot(): ReturnType<typeof provideFoot> {
  const foot = injectFoot();
  if (!foot) throw new Error('useFoot is called outside of a page with a foot');
  return foot;
}

/** Says the next step of a page for as long as that page is there. */
export function useNextStep(said: () => Said | undefined): void {
  // A part that is tested by itself has no foot.
  const foot = injectFoot();
  if (!foot) return;
  foot.says.value = said;
  onScopeDispose(() => {
    if (foot.says.value === said) foot.says.value = undefined;
  });
}
