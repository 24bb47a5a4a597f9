import { createGlobalState, useEventListener, useLocalStorage } from '@vueuse/core';

/** What each key does, for the help panel; the keys work wherever nothing is being typed. */
export const KEYS: readonly (readonly [string, string])[] = [
  ['n', 'new parcel'],
  ['/', 'search; on an open parcel: find an action'],
  ['1 – 8', 'the stops of a shipment, from Measure to After'],
  ['space', 'in Pack: done, next step; so does a pedal’s Page Down'],
  ['Page Up', 'in Pack: the step before'],
  ['[  ]', 'shipment before, shipment after'],
  ['a', 'what the layer in focus could be instead'],
  ['u', 'next unit: mm, cm, inches'],
  ['z', 'undo the last change'],
  ['Z', 'redo it'],
  ['p', 'print this view'],
  ['Esc', 'leave a field, close what is open'],
  ['?', 'help with this page, and these keys'],
];

/** Whether the keys work: whoever speaks to the machine, or whose hand slips, can switch them off. */
export const useKeysWork = createGlobalState(() => useLocalStorage('hummock.keys', true));

const TYPED_IN =
  'input:not([type=radio], [type=checkbox], [type=range]), textarea, select, [contenteditable]';

/** Lets Escape leave the field that is typed in, unless something of the field closes by it first. */
export function useEscapeFromFields(): void {
  useEventListener(document, 'keydown', (event: KeyboardEvent) => {
    if (event.key !== 'Escape' || event.defaultPrevented) return;
    if (!(event.target instanceof HTMLElement) || !event.target.matches(TYPED_IN)) return;
    if (event.target.closest('.modal') || event.target.getAttribute('aria-expanded') === 'true') return;
    event.target.blur();
  });
}

/** Closes what is open by Escape, wherever the focus is; also where the other keys are switched off. */
export function useEscape(close: () => void): void {
  useEventListener(document, 'keydown', (event: KeyboardEvent) => {
    if (event.key === 'Escape' && !event.defaultPrevented) close();
  });
}

/** Goes on by space or a pedal's Page Down, and back by its Page Up, while it works. */
export function usePedal(walk: {
  works: () => boolean;
  /** What has a press of its own: space presses that; a pedal means the step wherever one is. */
  own: string;
  on: () => void;
  back: () => void;
}): void {
  const work = useKeysWork();
  useEventListener(document, 'keydown', (event: KeyboardEvent) => {
    if (!work.value || !walk.works() || event.ctrlKey || event.metaKey || event.altKey) return;
    const onControl = event.target instanceof Element && event.target.closest(walk.own) !== null;
    const act = { ' ': onControl ? undefined : walk.on, PageDown: walk.on, PageUp: walk.back }[event.key];
    if (!act) return;
    event.preventDefault();
    act();
  });
}

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
