import { describe, expect, it } from 'vitest';

import type { Rung, Step } from '@/api/types';
import { useUnits } from '@/units/useUnits';

import { amountWords, lessWords, treads } from './ladder';

const rung = (kg: number, amount: string): Rung => ({
  up_to_g: kg * 1000,
  price: { amount, currency: 'EUR' },
});
const LADDER = [rung(2, '5.60'), rung(5, '7.90'), rung(10, '11.60'), rung(11, '12.45')];

describe('a ladder of prices', () => {
  it('rises tread by tread, each as wide as its weights', () => {
    const { drawn } = treads(LADDER, 9000);
    expect(drawn.map(({ price }) => price)).toEqual(['5.60', '7.90', '11.60', '12.45']);
    for (const [at, tread] of drawn.entries()) {
      expect(tread.to).toBeGreaterThan(tread.from);
      const next = drawn[at + 1];
      if (next) {
        expect(next.from).toBe(tread.to);
        expect(next.y).toBeLessThan(tread.y);
      }
    }
  });

  it('has the parcel on the tread that its weight is billed by, its end included', () => {
    const { at, drawn } = treads(LADDER, 5000);
    expect(at?.y).toBe(drawn[1]?.y);
    expect(at?.x).toBe(drawn[1]?.to);
    expect(treads(LADDER, 5001).at?.y).toBe(drawn[2]?.y);
    expect(treads([], 5000).at).toBeUndefined();
  });

  it('rounds up what must come off, and down what there is room for', () => {
    const units = useUnits();
    units.unit.value = 'mm';
    expect(amountWords(8.2, null, true, units)).toBe('9\u00a0mm');
    expect(amountWords(8.9, null, false, units)).toBe('8\u00a0mm');
    expect(amountWords(9, null, true, units)).toBe('9\u00a0mm');
    expect(amountWords(null, 139.2, true, units)).toBe('0.14\u00a0kg');
    const step = { along: 'through', less_mm: 8.2, less_g: null } as Step;
    expect(lessWords(step, units)).toBe('9\u00a0mm off the depth');
  });
});
