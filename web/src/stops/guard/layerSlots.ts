// The layers of a plan in the order of the work, with the ones that were left out in their place.
import type { Layer, Make, Plan } from '@/api/types';

export type SlotName = 'contact' | 'pockets' | 'boards' | 'first_wrap' | 'second_wrap' | 'fill' | 'box';

export interface Slot {
  name: SlotName;
  /** Its place among the layers; absent when it is left out. */
  place?: number;
  layer?: Layer;
}

const KINDS: readonly { name: SlotName; kind: Make['kind'] }[] = [
  { name: 'contact', kind: 'contact_sheet' },
  { name: 'pockets', kind: 'card_pockets' },
  { name: 'boards', kind: 'face_boards' },
  { name: 'first_wrap', kind: 'wrap' },
  { name: 'second_wrap', kind: 'wrap' },
  { name: 'fill', kind: 'edge_fill' },
  { name: 'box', kind: 'slotted_box' },
];

/** Returns a slot for each step of the work. */
export function slotsOf(plan: Plan): Slot[] {
  let place = 0;
  return KINDS.map(({ name, kind }) => {
    const layer = plan.layers[place];
    if (layer?.make.kind !== kind) return { name };
    place += 1;
    return { name, layer, place: place - 1 };
  });
}
