import { describe, expect, it } from 'vitest';

import type { ShelfItem } from '@/api/types';

import { manners } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import { amount, asCounted, asKept, sent } from './amounts';

describe('what is on the shelf', () => {
  it('is counted as a person does and kept to the millimetre and the gram', () => {
    expect(asKept(2.5, 'mm')).toBe(2500);
    expect(asCounted(3200, 'g')).toBe(3.2);
    expect(asKept(7, 'pieces')).toBe(7);
    expect(amount(2500, 'mm')).toBe('2.50\u00a0m');
    expect(amount(45_000, 'mm')).toBe('45.0\u00a0m');
    expect(amount(3, 'pieces')).toBe('3');
    // 0.1 + 0.2 metres is no 0.30000000000000004.
    expect(asKept(0.1 + 0.2, 'mm')).toBe(300);
  });

  it('is counted in yards and pounds where the studio reads them', () => {
    // 2.5 yd = 2286 mm; 12 lb = 5443.1 g.
    const { unit } = useUnits();
    unit.value = 'in';
    manners.mass = 'lb';
    expect(asKept(2.5, 'mm')).toBe(2286);
    expect(amount(2286, 'mm')).toBe('2.50\u00a0yd');
    expect(asCounted(asKept(0.1, 'mm'), 'mm')).toBe(0.1);
    expect(asKept(12, 'g')).toBe(5443);
    expect(amount(5443, 'g')).toBe('12.0\u00a0lb');
    unit.value = 'mm';
    manners.mass = 'kg';
  });

  it('is sent as what it is, without what was only told of it', () => {
    const item = {
      id: 'a',
      kind: 'roll',
      material: 'gummed-60',
      material_name: 'Gummed tape',
      measure: 'mm',
      name: '',
      place: 'drawer',
      left: 31_000,
      spoilt: null,
    } as ShelfItem;
    expect(sent(item, 12)).toEqual({
      kind: 'roll',
      material: 'gummed-60',
      name: '',
      place: 'drawer',
      left: 12,
    });
  });
});
