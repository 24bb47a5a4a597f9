// How the figures of a sum are written.
import type { useUnits } from '@/units/useUnits';

import { partOf } from './sum';
import type { Answer, Told } from './sum';

type Units = ReturnType<typeof useUnits>;

const GOVERNS: Record<string, string> = {
  actual: 'weight',
  volumetric: 'size',
  minimum: 'the least that is billed',
};

/** Returns one figure of an answer, rounded for the eye. */
export function figure(answer: Answer, { key, kind, none }: Told, units: Units): string {
  const value = partOf(answer, key);
  if (value === undefined || value === null) return none ?? '–';
  if (kind === 'words') return GOVERNS[String(value)] ?? String(value);
  const number = Number(value);
  switch (kind) {
    case 'mm':
      return units.unit.value === 'mm'
        ? `${number.toFixed(number < 100 ? 1 : 0)}\u00a0mm`
        : units.length(number);
    case 'm2':
      return `${number.toFixed(3)}\u00a0m²`;
    case 'cm2':
      return `${number.toFixed(0)}\u00a0cm²`;
    case 'kpa':
      return `${number.toFixed(3)}\u00a0kPa`;
    case 'kjm3':
      return `${number.toFixed(1)}\u00a0kJ/m³`;
    case 'g':
      return `${number.toFixed(1)}\u00a0G`;
    case 'n':
      return `${number.toFixed(0)}\u00a0N`;
    case 'hz':
      return `${number.toFixed(1)}\u00a0Hz`;
    case 'tiny':
      return `${(number * 1e6).toPrecision(3)} in a million`;
    case 'onein':
      return number > 0 ? `1 in ${Number((1 / number).toPrecision(2))}` : 'never';
    case 'kg':
      return `${number.toFixed(2)}\u00a0kg`;
    case 'plain':
      return number.toPrecision(4);
    default:
      return String(number);
  }
}
