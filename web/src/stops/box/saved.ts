// What is done to a carton that the studio has, in words.
import type { MakeOf } from '@/api/types';
import type { useUnits } from '@/units/useUnits';

type Units = ReturnType<typeof useUnits>;

/** How it is cut down, or what is added to it. */
export function savedWords({ cut, sleeve }: MakeOf<'saved_box'>, units: Units): string {
  if (sleeve) {
    const size = units.size(sleeve.width_mm, sleeve.height_mm);
    return `Cut its upper flaps off, push in a sleeve cut to ${size}, and tape both.`;
  }
  if (!cut) return 'It goes as it is; what it has over is filled.';
  return `Score it ${units.length(cut.below_mm)} below its upper scores, lengthen the slots down to them, and trim the flaps to ${units.length(cut.flap_mm)}.`;
}
