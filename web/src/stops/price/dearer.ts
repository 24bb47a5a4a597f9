// Why a service costs more than the best one: the parts that make most of the difference.
import type { Dearer, Money } from '@/api/types';
import { COST_NAMES } from '@/frame/amounts';

/** A part under this share of the difference explains nothing. */
const LEAST_SHARE = 0.15;
const MOST_PARTS = 2;

export interface Told {
  way: 'more' | 'less';
  difference: Money;
  /** The parts that make most of it; none of one that costs less and stands behind for another reason. */
  because: { name: string; sum: Money }[];
}

/** The difference, and the parts that make most of it. */
export function toldOf({ more, parts }: Dearer): Told {
  const difference = Number(more.amount);
  if (difference <= 0)
    return { way: 'less', difference: { ...more, amount: more.amount.replace('-', '') }, because: [] };
  const because = parts
    .filter(({ more: { amount } }) => Number(amount) >= difference * LEAST_SHARE)
    .slice(0, MOST_PARTS)
    .map(({ part, more: sum }) => ({ name: COST_NAMES[part], sum }));
  return { way: 'more', difference: more, because };
}
