// What a reading says about the plan, in words.
import type { Worked } from '@/api/types';
import { kilograms } from '@/units/show';

type Found = NonNullable<Worked['found']>;
export type Verdict = NonNullable<Found['verdict']>;

/** A difference as people say it at a bench: whole grams below a kilogram. */
export function difference(grams: number): string {
  const size = Math.abs(grams);
  return size < 1000 ? `${size.toFixed(0)}\u00a0g` : kilograms(size);
}

/** The reading beside the plan, in one sentence. */
export function verdictWords({ planned, read_g, off_g, as_planned }: Verdict): string {
  const plan = `Planned ${kilograms(planned.mass_g)} ± ${kilograms(planned.plus_minus_g)}, weighs ${kilograms(read_g)}`;
  if (as_planned) return `${plan}: as planned.`;
  return `${plan}: ${difference(off_g)} ${off_g > 0 ? 'more' : 'less'} than the plan explains.`;
}

/** What would make the difference. */
export function explanations({ explained }: Verdict): string[] {
  return explained.map(({ says, makes_g }) => `${says} (${makes_g < 0 ? '−' : '+'}${difference(makes_g)})`);
}
