import { describe, expect, it } from 'vitest';

import { useUnits } from '@/units/useUnits';

import { measuredBeside } from './wrapped';

const box = (across_mm: number, up_mm: number, through_mm: number) => ({ across_mm, up_mm, through_mm });
const predicted = box(568, 770, 99);
const blanks = {
  predicted_blank: { width_mm: 1709, height_mm: 662 },
  blank: { width_mm: 1727, height_mm: 671 },
};

describe('a wrapped piece that was measured', () => {
  const says = (measured: typeof predicted) =>
    measuredBeside({ predicted, measured, ...blanks }, useUnits()).replace(/[\s\u2009\u202f]/g, ' ');

  it('is told by how it differs, and what that does to the blank', () => {
    expect(says(box(568, 770, 108))).toBe(
      '9 mm thicker than the sums say: the blank is 1727 × 671 mm instead of 1709 × 662 mm.',
    );
    expect(says(box(564, 772, 99))).toMatch(/^4 mm narrower, 2 mm taller than the sums say: /);
  });

  it('says so when the sums were right', () => {
    expect(says(predicted)).toBe('It measures what the sums say: the box stays as it is.');
  });

  it('tells no blank where none is cut', () => {
    const alone = { predicted, measured: box(568, 770, 95), predicted_blank: null, blank: null };
    expect(measuredBeside(alone, useUnits()).replace(/\s/g, ' ')).toBe('4 mm thinner than the sums say.');
  });
});
