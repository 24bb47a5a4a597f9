// How much there is of something, as people count it.
import type { Measure, ShelfItem, ShelfRequest } from '@/api/types';
import { decimals, GRAMS_PER_POUND, manners, MM_PER_YARD } from '@/units/show';
import { useUnits } from '@/units/useUnits';

type Units = ReturnType<typeof useUnits>;
const THOUSAND = 1000;

/** What a person counts something in, and how much of the shelf's own measure that is. */
function counting(measure: Measure): { unit: string; each: number } {
  switch (measure) {
    case 'pieces':
      return { unit: '', each: 1 };
    case 'mm':
      return useUnits().unit.value === 'in'
        ? { unit: 'yd', each: MM_PER_YARD }
        : { unit: 'm', each: THOUSAND };
    case 'g':
      return manners.mass === 'lb' ? { unit: 'lb', each: GRAMS_PER_POUND } : { unit: 'kg', each: THOUSAND };
  }
}

/** What a person counts in. */
export const unitOf = (measure: Measure): string => counting(measure).unit;

/** A count as a person writes it: pieces, metres or yards, kilograms or pounds. */
export const asCounted = (left: number, measure: Measure): number => {
  const counted = left / counting(measure).each;
  // What was typed to the hundredth is shown so again.
  return measure === 'pieces' ? counted : Math.round(counted * THOUSAND) / THOUSAND;
};

/** What a person wrote, in the shelf's own measure. */
export const asKept = (typed: number, measure: Measure): number =>
  measure === 'pieces' ? typed : Math.round(typed * counting(measure).each);

/** A count with what it is of. */
export function amount(left: number, measure: Measure): string {
  if (measure === 'pieces') return String(left);
  const number = asCounted(left, measure);
  return `${decimals(number.toFixed(number < 10 ? 2 : 1))}\u00a0${unitOf(measure)}`;
}

/** What a case is weighed in, and a reading of it in grams. */
export const massUnit = (): string => counting('g').unit;
export const asGrams = (read: number): number => asKept(read, 'g');

/** The size of something, where it has one. */
export function sizeOf(item: ShelfItem, units: Units): string {
  switch (item.kind) {
    case 'sheet':
    case 'offcut': {
      const thick = item.thickness_mm ? `, ${units.length(item.thickness_mm)} thick` : '';
      return `${units.size(item.width_mm, item.height_mm)}${thick}`;
    }
    case 'carton':
    case 'case':
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
