// What an undo or a redo changed, in words.
import { useTimeoutFn } from '@vueuse/core';
import { ref, watch } from 'vue';
import type { Ref } from 'vue';

import { useSaid } from '@/said/say';
import { fieldInSentence } from '@/shipment/fields';
import { useShipment } from '@/shipment/useShipment';
import { counted } from '@/words/grammar';

const SHOWN_FOR_MS = 8000;
/** More fields than this are only counted. */
const MOST_NAMED = 3;
/** Written by the server beside what somebody changed. */
const BESIDE = /^(lifted_for|currency)\b/;

type Tree = { readonly [key: string]: unknown };
const isTree = (value: unknown): value is Tree =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The paths of the fields in which two documents differ. */
export function changedFields(before: unknown, now: unknown, at = ''): string[] {
  if (!isTree(before) && !isTree(now))
    return JSON.stringify(before ?? null) === JSON.stringify(now ?? null) ? [] : [at];
  const [then, after] = [isTree(before) ? before : {}, isTree(now) ? now : {}];
  return [...new Set([...Object.keys(then), ...Object.keys(after)])].flatMap((key) =>
    changedFields(then[key], after[key], at ? `${at}.${key}` : key),
  );
}

const SETTLED: Record<string, string> = {
  guard: 'Guard confirmed',
  box: 'Box confirmed',
  weigh: 'Weigh confirmed',
};

function named(path: string): string {
  if (path.startsWith('settled.')) return SETTLED[path.slice('settled.'.length)] ?? 'a confirmed stop';
  if (path.startsWith('packed')) return 'what was ticked at Pack';
  if (path.startsWith('lifted.')) return 'a Stop that was lifted';
  if (path.startsWith('quotations')) return 'a quoted price';
  if (path.startsWith('enclosures')) return 'what goes in besides';
  return fieldInSentence(path);
}

/** Names fields in a sentence: at most three, the rest counted. */
export function namedFields(paths: readonly string[]): string {
  const names = [...new Set(paths.filter((path) => !BESIDE.test(path)).map(named))];
  const more = names.length - MOST_NAMED;
  if (more > 1) return `${names.slice(0, MOST_NAMED).join(', ')} and ${counted(more, 'more field')}`;
  const last = names.pop();
  return names.length > 0 ? `${names.join(', ')} and ${last ?? ''}` : (last ?? '');
}

/** Undo and redo of the open shipment, with what the last one changed, for a few seconds. */
export function useUndone(): { undone: Ref<string>; undo: () => unknown; redo: () => unknown } {
  const { stored, undo, redo } = useShipment();
  const { say } = useSaid();
  const undone = ref('');
  let wanted: 'undo' | 'redo' | undefined;
  const { start } = useTimeoutFn(() => (undone.value = ''), SHOWN_FOR_MS, { immediate: false });
  watch(stored, (now, before) => {
    if (!wanted || !now || !before || now.version === before.version) return;
    // What was still being typed is saved first; only an undo leaves something to redo.
    if (wanted === 'undo' && !now.can_redo) return;
    const fields = namedFields(changedFields(before.inputs, now.inputs));
    undone.value = fields && `${wanted === 'undo' ? 'Undone' : 'Done again'}: ${fields}.`;
    wanted = undefined;
    say(undone.value);
    start();
  });
  const step = (towards: 'undo' | 'redo') => () => {
    wanted = towards;
    return towards === 'undo' ? undo() : redo();
  };
  return { undone, undo: step('undo'), redo: step('redo') };
}
