// What the pages show of an open shipment.
import { computed } from 'vue';
import type { ComputedRef } from 'vue';

import type { PieceSize } from '@/api/types';

import { pathsOf } from './draft';
import { changeOf, isAtWork, isPending } from './machine';
import type { Open } from './machine';

export type SaveState =
  'opening' | 'missing' | 'saved' | 'waiting' | 'saving' | 'refused' | 'unreachable' | 'stale';

/** How far what is typed is stored. */
export function saveState(state: Open): SaveState {
  if (state.phase === 'missing') return 'missing';
  if (state.away !== undefined) return 'unreachable';
  if (state.phase === 'opening') return 'opening';
  if (state.theirs) return 'stale';
  if (state.waiting) return 'saving';
  // A reason that is half written is in nobody's way, and its Stop may be gone by now.
  const isLoose = Object.keys(state.texts).some((field) => !field.startsWith('reason.'));
  if (changeOf(state) === undefined) return isLoose ? 'refused' : 'saved';
  const isHeld = state.stuck !== undefined || !isAtWork(state);
  return isHeld || Object.keys(state.errors).length > 0 ? 'refused' : 'waiting';
}

function conflictOf(state: Open) {
  const { theirs } = state;
  const mine = theirs && changeOf(state);
  return theirs && mine !== undefined ? { theirs, mine, fields: pathsOf(mine) } : undefined;
}

/** Derives everything that is shown from the state. */
export function figuresOf(state: ComputedRef<Open>) {
  const figures = computed(() => state.value.figures);
  const stored = computed(() => state.value.shipment);
  const canStep = (has: boolean | undefined) => isAtWork(state.value) && has === true;
  return {
    stored,
    figures,
    errors: computed(() => state.value.errors),
    /** Texts that stand in fields and are no values yet. */
    loose: computed(() => state.value.texts),
    state: computed(() => saveState(state.value)),
    trouble: computed(() => state.value.away ?? ''),
    conflict: computed(() => conflictOf(state.value)),
    plan: computed(() => figures.value?.worked.plan ?? undefined),
    size: computed(() => figures.value?.worked.size ?? undefined),
    /** Of every piece, by its name, once its three sides are given. */
    sizes: computed((): Record<string, PieceSize | undefined> => {
      const worked = figures.value?.worked;
      return { ...worked?.sizes, first: worked?.size ?? undefined };
    }),
    bearing: computed(() => figures.value?.worked.bearing ?? []),
    corners: computed(() => figures.value?.worked.corners ?? []),
    quotes: computed(() => figures.value?.worked.quotes ?? []),
    /** The box that the house's rule chose, where it is not the usual one. */
    boxByRule: computed(() => figures.value?.worked.box_by_rule),
    /** How a travel case comes back. */
    caseBack: computed(() => figures.value?.worked.case_back ?? undefined),
    summary: computed(() => figures.value?.summary ?? undefined),
    fingerprint: computed(() => figures.value?.worked.fingerprint ?? ''),
    line: computed(() => figures.value?.line),
    /** Everything that is in the way of it, as the server tells it. */
    against: computed(() => figures.value?.against ?? []),
    /** What the packed parcel was found to be. */
    found: computed(() => figures.value?.worked.found ?? undefined),
    restsOn: computed(() => figures.value?.worked.rests_on ?? { mass: 'planned', size: 'planned' }),
    missing: computed(() => figures.value?.worked.missing ?? []),
    /** Why there can be no plan, in sentences. */
    refusals: computed(() => figures.value?.worked.refusals ?? []),
    canUndo: computed(() => canStep(stored.value?.can_undo === true || changeOf(state.value) !== undefined)),
    canRedo: computed(() =>
      canStep(
        state.value.aside !== undefined || (stored.value?.can_redo === true && !isPending(state.value)),
      ),
    ),
    /** Whether it was handed over and is not put away: its plan stays as it went. */
    left: computed(() => stored.value?.place === 'sent'),
    /** Where what it was is kept, once it was handed over, put away or not. */
    kept: computed(() => stored.value?.left ?? undefined),
    /** What it is followed by, and as it was handed over. */
    tracking: computed(() => stored.value?.tracking ?? undefined),
    handed: computed(() => stored.value?.handed ?? undefined),
    /** Where it is put away, if it is. */
    away: computed(() => (isAtWork(state.value) ? undefined : stored.value?.place)),
  };
}
