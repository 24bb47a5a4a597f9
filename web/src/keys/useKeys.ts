import { createGlobalState, useEventListener, useLocalStorage } from '@vueuse/core';

/** What each key does, for the help panel; the keys work wherever nothing is being typed. */
export const KEYS: readonly (readonly [string, string])[] = [
  ['n', 'new shipment'],
  ['/', 'search the bench'],
  ['1 – 6', 'Measure, Guard, Box, Price, Pack, Weigh'],
  ['space', 'in Pack: done, next step; so does a pedal’s Page Down'],
  ['Page Up', 'in Pack: the step before'],
  ['[  ]', 'shipment before, shipment after'],
  ['a', 'what the layer in focus could be instead'],
  ['u', 'next unit: mm, cm, inches'],
  ['z', 'undo the last change'],
  ['Z', 'redo it'],
  ['p', 'print this view'],
  ['?', 'these keys'],
];

/** Whether the keys work: whoever speaks to the machine, or whose hand slips, can switch them off. */
export const useKeysWork = createGlobalState(() => useLocalStorage('hummock.keys', true));

const TYPED_IN =
  'input:not([type=radio], [type=checkbox], [type=range]), textarea, select, [contenteditable]';

/** Runs an act for a key while the component is there; never while something is being typed. */
export function useKeys(acts: Record<string, () => void>): void {
  const work = useKeysWork();
  useEventListener(document, 'keydown', (event: KeyboardEvent) => {
    if (!work.value) return;
    if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
    if (event.target instanceof Element && event.target.closest(`${TYPED_IN}, .modal`)) return;
    const act = acts[event.key];
    if (!act) return;
    event.preventDefault();
    act();
  });
}
