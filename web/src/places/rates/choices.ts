// What can be chosen in a price list, in the words of the trade.
import type { ConditionSheet, WhatSheet } from '@/api/types';

type Gauge = Extract<ConditionSheet, { kind: 'over' }>['gauge'];

/** What of a parcel a carrier measures. */
export const GAUGES: readonly { value: Gauge; text: string; like: string }[] = [
  { value: 'longest', text: 'longest side over', like: '1000 mm' },
  { value: 'second', text: 'second side over', like: '700 mm' },
  { value: 'shortest', text: 'shortest side over', like: '400 mm' },
  { value: 'girth', text: 'girth over', like: '2000 mm' },
  { value: 'length_plus_girth', text: 'length + girth over', like: '3000 mm' },
  { value: 'volume', text: 'volume over', like: '150 l' },
  { value: 'mass', text: 'weighs over', like: '20 kg' },
  { value: 'billable', text: 'billed over', like: '20 kg' },
];

export const SHAPES = [
  { value: 'rectangular', text: 'a box' },
  { value: 'tube', text: 'a round tube' },
  { value: 'triangular', text: 'a three-sided tube' },
] as const;

export const CONTENTS = [
  { value: 'glass', text: 'glass' },
  { value: 'paper', text: 'a work on paper' },
  { value: 'painting', text: 'a painting' },
  { value: 'double_boxed', text: 'a second box' },
] as const;

export const DAYS = [
  { value: 'mon', text: 'Mon' },
  { value: 'tue', text: 'Tue' },
  { value: 'wed', text: 'Wed' },
  { value: 'thu', text: 'Thu' },
  { value: 'fri', text: 'Fri' },
  { value: 'sat', text: 'Sat' },
  { value: 'sun', text: 'Sun' },
] as const;

/** The kinds of lines that a share can be reckoned on. */
export const LINES = [
  { value: 'base', text: 'base price' },
  { value: 'further', text: 'further kilograms' },
  { value: 'surcharge', text: 'what costs more' },
  { value: 'discount', text: 'discount' },
  { value: 'fuel', text: 'fuel' },
  { value: 'cover', text: 'cover' },
] as const;

/** When a line applies; each measure is a choice of its own. */
export const CONDITIONS: readonly { value: string; text: string; made: () => ConditionSheet }[] = [
  ...GAUGES.map(({ value, text }) => ({
    value: `over ${value}`,
    text,
    made: (): ConditionSheet => ({ kind: 'over', gauge: value, over: '' }),
  })),
  { value: 'postcode', text: 'postcode begins with', made: () => ({ kind: 'postcode', prefixes: '' }) },
  { value: 'zone', text: 'goes to the zone', made: () => ({ kind: 'zone', is: [] }) },
  { value: 'value_over', text: 'worth over', made: () => ({ kind: 'value_over', over: '' }) },
  { value: 'glass', text: 'glass inside', made: () => ({ kind: 'glass' }) },
  { value: 'contents', text: 'inside is', made: () => ({ kind: 'contents', any_of: [] }) },
  { value: 'without', text: 'inside is not', made: () => ({ kind: 'without', any_of: [] }) },
  { value: 'shape', text: 'shaped as', made: () => ({ kind: 'shape', is: [] }) },
  { value: 'always', text: 'always', made: () => ({ kind: 'always' }) },
];

/** What a line does. */
export const EFFECTS: readonly { value: WhatSheet['kind']; text: string; made: () => WhatSheet }[] = [
  { value: 'sum', text: 'add', made: () => ({ kind: 'sum', price: '' }) },
  {
    value: 'per_kg',
    text: 'add for each kg begun',
    made: () => ({ kind: 'per_kg', price: '', of: 'billable' }),
  },
  { value: 'percent', text: 'add per cent', made: () => ({ kind: 'percent', percent: '', of: ['base'] }) },
  { value: 'minimum', text: 'bill at least', made: () => ({ kind: 'minimum', billable: '' }) },
  {
    value: 'steps',
    text: 'add by steps',
    made: () => ({ kind: 'steps', by: 'longest', steps: [{ over: '', price: '' }] }),
  },
];

/** The choice that a condition is. */
export function chosen(condition: ConditionSheet): string {
  return condition.kind === 'over' ? `over ${condition.gauge}` : condition.kind;
}
