// What a parcel costs the studio, as it is drawn: four parts, and the lines that each is made of.
import type { Cost, Money } from '@/api/types';

import { COST_NAMES } from './amounts';

export type PartName = 'materials' | 'work' | 'carrier' | 'damage';

interface Part {
  key: PartName;
  sum: keyof Cost;
  name: string;
  /** Where there is no room for its name. */
  short: string;
  lines: readonly (keyof Cost)[];
}

const part = (key: PartName, sum: keyof Cost, short: string, lines: readonly (keyof Cost)[] = []): Part => ({
  key,
  sum,
  name: COST_NAMES[sum],
  short,
  lines,
});

/** The parts of the strip, in their order. */
export const PARTS: readonly Part[] = [
  part('materials', 'materials', 'materials'),
  part('work', 'work_and_overhead', 'labour', ['work', 'overhead']),
  part('carrier', 'to_carrier', 'carrier', ['carriage', 'surcharges', 'tax', 'cover']),
  part('damage', 'expected_loss', 'damage'),
];

/** Whether an amount comes to anything. */
export const isSome = ({ amount }: Money): boolean => Number(amount) !== 0;

/** How much of the whole a part is, from 0 to 1. */
export function shareOf(cost: Cost, sum: keyof Cost): number {
  const whole = Number(cost.total.amount);
  return whole > 0 ? Math.max(0, Number(cost[sum].amount)) / whole : 0;
}
