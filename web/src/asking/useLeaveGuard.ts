// Asks before something that is typed and not kept yet is left.
import { useEventListener } from '@vueuse/core';
import { onBeforeRouteLeave, onBeforeRouteUpdate } from 'vue-router';

import { ask } from './ask';

/** The question before something that was typed is lost; `what` as in "You have not kept the changed rules". */
export function mayLose(what: string): Promise<boolean> {
  return ask({
    title: 'Leave this page?',
    says: `You have not kept ${what}: leaving loses all of it.`,
    stay: 'Stay here',
    goOn: 'Leave all the same',
  });
}

/** Guards what `unkept` names, for as long as it names anything. With `parts`, going from one part of the page to another loses
    nothing. */
export function useLeaveGuard(unkept: () => string | undefined, parts = false): void {
  const mayLeave = (): true | Promise<boolean> => {
    const what = unkept();
    return what === undefined || mayLose(what);
  };
  onBeforeRouteLeave(mayLeave);
  onBeforeRouteUpdate(() => parts || mayLeave());
  useEventListener(window, 'beforeunload', (event) => {
    if (unkept() !== undefined) event.preventDefault();
  });
}
