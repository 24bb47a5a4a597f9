// The layers of a plan by where they lie.
import type { Layer, LayerSlot, Plan } from '@/api/types';

/** The layers from the art outward, as far as a place. */
export function layersTo({ layers, slots }: Plan, last: LayerSlot): Layer[] {
  const places = slots.map(({ slot }) => slot);
  return layers.filter(({ slot }) => places.indexOf(slot) <= places.indexOf(last));
}
