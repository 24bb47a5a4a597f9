// What was typed and not stored yet, kept in this browser so that a slip of the hand loses nothing. Each window keeps its
// own, so that two of them never write over each other; whichever opens a shipment next takes up what another left.
import { ofStudio } from '@/kept/studio';

import type { Storage as Keeping } from './driver';
import type { Kept } from './machine';

const prefix = () => ofStudio('typed.');

/** The part of a browser's storage that is used. */
export interface Box {
  readonly length: number;
  key(at: number): string | null;
  getItem(key: string): string | null;
  setItem(key: string, text: string): void;
  removeItem(key: string): void;
}

function read(box: Box, key: string): Kept | undefined {
  try {
    const kept = JSON.parse(box.getItem(key) ?? 'null') as Partial<Kept> | null;
    return kept?.typed !== undefined && kept.basis !== undefined ? (kept as Kept) : undefined;
  } catch {
    return undefined;
  }
}

function keysOf(box: Box, start: string): string[] {
  return Array.from({ length: box.length }, (_, at) => box.key(at) ?? '').filter((key) =>
    key.startsWith(start),
  );
}

/** Tells when another window took something out of the box. */
export type Removals = (removed: (key: string) => void) => () => void;

/** Keeps what one window types. */
export function keeping(box: Box, window: string, removals: Removals): Keeping {
  /** What other windows left and this one took up, by shipment; theirs goes once it is stored. */
  const takenUp = new Map<string, { key: string; text: string | null }>();
  const keyOf = (id: string) => `${prefix()}${id}.${window}`;
  return {
    watch: (id, gone) =>
      removals((key) => {
        if (key === keyOf(id)) gone();
      }),
    kept(id) {
      const own = read(box, keyOf(id));
      if (own) return own;
      const key = keysOf(box, `${prefix()}${id}.`).find((other) => read(box, other));
      if (key === undefined) return undefined;
      takenUp.set(id, { key, text: box.getItem(key) });
      return read(box, key);
    },
    keep(id, kept) {
      try {
        if (kept) box.setItem(keyOf(id), JSON.stringify(kept));
        else {
          box.removeItem(keyOf(id));
          const left = takenUp.get(id);
          // A window that is still there may have gone on typing.
          if (left && box.getItem(left.key) === left.text) box.removeItem(left.key);
          takenUp.delete(id);
        }
      } catch {
        // Without room in the browser the page still works; only a reload before saving would lose.
      }
    },
  };
}

/** Finds the shipments of which something is not stored yet, with the newest of what was typed. */
export function pending(box: Box): { id: string; kept: Kept }[] {
  const found = new Map<string, Kept>();
  for (const key of keysOf(box, prefix())) {
    const id = key.slice(prefix().length).split('.')[0] ?? '';
    const kept = read(box, key);
    if (kept) found.set(id, kept);
  }
  return [...found].map(([id, kept]) => ({ id, kept }));
}
