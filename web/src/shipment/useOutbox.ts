// What was typed in this browser and is not stored yet: sent from the bench, and shown there until it is.
import { computed, onScopeDispose, shallowReactive } from 'vue';

import type { Inputs } from '@/api/types';
import { useUnits } from '@/units/useUnits';

import { startedHere } from './begun';
import { drive } from './driver';
import { saveState } from './figures';
import type { SaveState } from './figures';
import { pending } from './kept';
import type { Open } from './machine';
import { portsOf } from './ports';

const SAYS: Partial<Record<SaveState, string>> = {
  unreachable: 'kept in this browser until the server is back',
  refused: 'a value is not taken yet: open it',
  stale: 'changed elsewhere meanwhile: open it',
  missing: 'there is no such shipment any more',
};

/** Sends what is waiting; calls whenever something of it has arrived. */
export function useOutbox(arrived: () => void) {
  const { unit } = useUnits();
  const open = shallowReactive(new Map<string, Open>());
  const drivers = pending(localStorage).map(({ id }) =>
    drive(
      id,
      false,
      portsOf(() => unit.value),
      (state) => {
        if (state.shipment) startedHere.delete(id);
        if (saveState(state) !== 'saved') open.set(id, state);
        else if (open.delete(id)) arrived();
      },
    ),
  );
  onScopeDispose(() => {
    for (const driver of drivers) driver.stop();
  });
  return computed(() =>
    [...open].map(([id, state]) => ({
      id,
      title: (state.typed as unknown as Inputs).title,
      says: SAYS[saveState(state)] ?? 'being saved',
    })),
  );
}
