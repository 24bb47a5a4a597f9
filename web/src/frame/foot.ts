// The foot of a stop: what stands against going on, and the one verb that goes on. A stop says both; the foot shows them.
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

/** What stands against it, with its way out. */
export interface Against {
  says: string;
  level: 'stop' | 'mind' | 'note';
  way?: Act;
}

export interface Said {
  verb: Verb;
  /** Takes the place of what the findings say; left out where those are to be told. */
  against?: Against;
  /** Said behind what the findings say, where those let it go on. */
  also?: string;
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
