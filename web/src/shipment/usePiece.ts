// Which of several pieces the fields around are about. A shipment of one needs none of it: its own piece is the first.
import { computed, inject, provide } from 'vue';
import type { ComputedRef, InjectionKey, Ref } from 'vue';

import type { DraftPiece } from './draft';
import { useShipment } from './useShipment';

/** What the piece is named by that the shipment began with. */
export const FIRST = 'first';

const WHICH: InjectionKey<Ref<string>> = Symbol('which piece');

/** Says which piece the fields within are about. */
export function providePiece(which: Ref<string>): void {
  provide(WHICH, which);
}

export interface PieceInHand {
  /** `first`, or its name among the others. */
  key: ComputedRef<string>;
  piece: ComputedRef<DraftPiece>;
  /** Names a field of the piece as the server does. */
  at: (path: string) => string;
}

/** Returns the piece that the fields around are about. */
export function usePiece(): PieceInHand {
  const { draft } = useShipment();
  const which = inject(WHICH, undefined);
  const key = computed(() => (which && draft.others[which.value] ? which.value : FIRST));
  return {
    key,
    piece: computed(() => draft.others[key.value]?.piece ?? draft.piece),
    at: (path) => pathIn(key.value, path),
  };
}

/** A field of the first piece's, as it is named for another one. */
export function pathIn(key: string, path: string): string {
  const own = path === 'title' || path === 'value' || path.startsWith('piece.');
  return own && key !== FIRST ? `others.${key}.${path}` : path;
}

/** What the pieces are called in the order of their keys, the first one first. */
export function usePieces() {
  const { draft } = useShipment();
  return computed(() =>
    [{ key: FIRST, title: draft.title }]
      .concat(
        Object.keys(draft.others)
          .sort()
          .map((key) => ({ key, title: draft.others[key]?.title ?? '' })),
      )
      .map(({ key, title }, at) => ({ key, title: title.trim() || `piece ${String(at + 1)}` })),
  );
}
