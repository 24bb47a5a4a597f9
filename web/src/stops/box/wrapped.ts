// What the measured sides of the wrapped piece did to its box, in a sentence.
import type { Plan } from '@/api/types';
import type { useUnits } from '@/units/useUnits';

type Wrapped = NonNullable<Plan['wrapped']>;
type Units = ReturnType<typeof useUnits>;

/** Less than a tape tells. */
const LEAST_MM = 0.5;

const WAYS = [
  { side: 'across_mm', more: 'wider', less: 'narrower' },
  { side: 'up_mm', more: 'taller', less: 'shorter' },
  { side: 'through_mm', more: 'thicker', less: 'thinner' },
] as const;

/** `9 mm thicker than the sums say: the blank is 1727 × 671 mm instead of 1709 × 662 mm.` */
export function measuredBeside(
  { predicted, measured, predicted_blank, blank }: Wrapped,
  units: Units,
): string {
  const found = WAYS.map((way) => ({ ...way, by: measured[way.side] - predicted[way.side] }))
    .filter(({ by }) => Math.abs(by) >= LEAST_MM)
    .map(({ by, more, less }) => `${units.length(Math.abs(by))} ${by > 0 ? more : less}`);
  if (found.length === 0) return 'It measures what the sums say: the box stays as it is.';
  const than = `${found.join(', ')} than the sums say`;
  if (!blank || !predicted_blank) return `${than}.`;
  const [now, before] = [blank, predicted_blank].map((one) => units.size(one.width_mm, one.height_mm));
  return `${than}: the blank is ${now} instead of ${before}.`;
}
