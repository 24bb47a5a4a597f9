// How much there is of something, as people count it.
import type { Measure, ShelfItem, ShelfRequest } from '@/api/types';
import type { useUnits } from '@/units/useUnits';

type Units = ReturnType<typeof useUnits>;
const THOUSAND = 1000;

/** What a person counts in. */
export const UNIT: Record<Measure, string> = { pieces: '', mm: 'm', g: 'kg' };

/** A count as a person writes it: pieces, metres or kilograms. */
export const asCounted = (left: number, measure: Measure): number =>
  measure === 'pieces' ? left : left / THOUSAND;

/** What a person wrote, in the shelf's own measure. */
export const asKept = (typed: number, measure: Measure): number =>
  measure === 'pieces' ? typed : Math.round(typed * THOUSAND);

/** A count with what it is of. */
export function amount(left: number, measure: Measure): string {
  if (measure === 'pieces') return String(left);
  const number = asCounted(left, measure);
  return `${number.toFixed(number < 10 ? 2 : 1)}\u00a0${UNIT[measure]}`;
}

/** The size of something, where it has one. */
export function sizeOf(item: ShelfItem, units: Units): string {
  switch (item.kind) {
    case 'sheet':
    case 'offcut': {
      const thick = item.thickness_mm ? `, ${units.length(item.thickness_mm)} thick` : '';
      return `${units.size(item.width_mm, item.height_mm)}${thick}`;
    }
    case 'carton':
      return units.size(item.length_mm, item.width_mm, item.depth_mm);
    default:
      return '';
  }
}

/** What is sent of an item: what it is, without what was only told of it. */
export function sent(item: ShelfItem, left: number): ShelfRequest {
  const told = new Set(['id', 'material_name', 'measure', 'spoilt', 'left']);
  const itself = Object.entries(item).filter(([key]) => !told.has(key));
  return { ...Object.fromEntries(itself), left } as ShelfRequest;
}
