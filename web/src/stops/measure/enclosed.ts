// What goes in besides the piece, as a plan has it.
import type { Enclosed, MakeOf, Plan } from '@/api/types';

/** Lists everything that goes in, wherever it lies. */
export function enclosedIn(plan: Plan | undefined): Enclosed[] {
  return (plan?.layers ?? [])
    .map(({ make }) => make)
    .filter((make): make is MakeOf<'enclosures'> => make.kind === 'enclosures')
    .flatMap(({ list }) => list);
}
