import { describe, expect, it } from 'vitest';

import type { When } from '@/api/types';
import { useUnits } from '@/units/useUnits';

import { condition, effect } from './rules';

describe('a rule of a tariff', () => {
  it('is told as one would say it, in the unit that is shown', () => {
    const units = useUnits();
    units.unit.value = 'mm';
    const large: When = {
      kind: 'any',
      of: [
        { kind: 'longest_over', over_mm: 1000 },
        { kind: 'mass_over', over_g: 25000 },
      ],
    };
    expect(condition(large, units)).toBe('longest side over 1000\u00a0mm or weighs over 25.0\u00a0kg');
    units.unit.value = 'in';
    expect(condition({ kind: 'girth_over', over_mm: 1524 }, units)).toBe('girth over 60\u00a0in');
    units.unit.value = 'mm';
    expect(condition({ kind: 'without', any_of: ['double_boxed'] }, units)).toBe('without a second box');
  });

  it('says what it adds', () => {
    expect(effect({ kind: 'percent', percent: '25', of: ['base', 'Long parcel'] })).toBe(
      '25 % of base, Long parcel',
    );
    expect(effect({ kind: 'minimum', billable_g: 40000 })).toBe('billed as at least 40.0\u00a0kg');
    expect(effect({ kind: 'per_kg', price: '0.20', of: 'actual' })).toBe(
      '0.20 for each kg begun, as weighed',
    );
  });
});
