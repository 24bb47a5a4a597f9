// Parts of a plan that are folded away most of the time: while nobody looks at one, previews leave it out.
import { onScopeDispose, toValue, watch } from 'vue';
import type { MaybeRefOrGetter } from 'vue';

import type { components } from '@/api/schema';

export type Part = components['schemas']['PreviewPart'];
const PARTS: readonly Part[] = ['survival', 'lines', 'slots'];

export interface Looked {
  /** What nobody looks at now. */
  without: () => Part[];
  /** Says when somebody looks at a part; `ask` is called where it may have been left out until then. */
  look: (part: Part, at: MaybeRefOrGetter<boolean>) => void;
}

/** Counts who looks at what. */
export function lookedAt(ask: () => void): Looked {
  const by = new Map<Part, number>();
  const count = (part: Part, more: number) => by.set(part, (by.get(part) ?? 0) + more);
  return {
    without: () => PARTS.filter((part) => (by.get(part) ?? 0) === 0),
    look(part, at) {
      let looks = false;
      const be = (now: boolean) => {
        if (now === looks) return;
        looks = now;
        count(part, now ? 1 : -1);
        if (now) ask();
      };
      watch(() => toValue(at), be, { immediate: true });
      onScopeDispose(() => be(false));
    },
  };
}
