// Shipments that are begun in this page.
import { v7 as newId } from 'uuid';

import type { Inputs } from '@/api/types';

import { draftOf, inputsOf } from './draft';
import type { Json } from './draft';
import { NOTHING_TYPED } from './machine';
import { portsOf } from './ports';

/** Shipments begun in this page that are not stored yet. */
export const startedHere = new Set<string>();

/** Returns the id for a shipment that is begun now; it is stored once something is typed, or with what is given. */
export function beginShipment(given?: Inputs): string {
  const id = newId();
  startedHere.add(id);
  if (given) {
    // As the fields will hold it: what is empty there is empty here.
    const typed = inputsOf(draftOf(given)) as unknown as Json;
    const kept = { version: 0, basis: NOTHING_TYPED, typed, texts: {} };
    portsOf(() => 'mm').storage.keep(id, kept);
  }
  return id;
}
