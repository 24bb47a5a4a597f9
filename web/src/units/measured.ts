// What materials are measured in: as it is kept, and as a studio with an inch ruler reads and types it.
import { useUnits } from './useUnits';

/** How much of the kept unit one of the other is. */
const WITH_INCHES: Partial<Record<string, { unit: string; each: number }>> = {
  mm: { unit: 'in', each: 25.4 },
  g: { unit: 'oz', each: 28.349_523_125 },
  'g/m': { unit: 'oz/yd', each: 31.003_42 },
  'g/m²': { unit: 'lb/1000 ft²', each: 4.882_428 },
  'kg/m³': { unit: 'lb/ft³', each: 16.018_463 },
  'kN/m': { unit: 'lb/in', each: 0.175_126_8 },
  kPa: { unit: 'psi', each: 6.894_757 },
};

export interface Measured {
  /** What it is shown and typed in. */
  unit: string;
  /** A kept number as it is shown: four digits of what was converted, all of what was not. */
  shown: (kept: number) => number;
  /** A typed number as it is kept. */
  kept: (typed: number) => number;
}

const SHOWN_DIGITS = 4;
const KEPT_DIGITS = 8;

/** How a number in a kept unit is read just now. */
export function measured(unit: string | undefined): Measured {
  const other = unit && useUnits().unit.value === 'in' ? WITH_INCHES[unit] : undefined;
  if (!other) return { unit: unit ?? '', shown: (kept) => kept, kept: (typed) => typed };
  return {
    unit: other.unit,
    shown: (kept) => Number((kept / other.each).toPrecision(SHOWN_DIGITS)),
    kept: (typed) => Number((typed * other.each).toPrecision(KEPT_DIGITS)),
  };
}

/** A number as it is typed, `48 1/2` too; none for anything else. */
export function readNumber(text: string): number {
  const parts = /^(\d*[.,]?\d+)?(?:(?:^|\s+)(\d+)\/(\d+))?$/.exec(text.trim());
  if (!parts || text.trim() === '') return NaN;
  const [, whole = '0', above = '0', below = '1'] = parts;
  return Number(whole.replace(',', '.')) + Number(above) / Number(below);
}
