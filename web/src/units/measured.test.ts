// @vitest-environment happy-dom
import { afterEach, describe, expect, it } from 'vitest';

import { measured, readNumber } from './measured';
import { useUnits } from './useUnits';

afterEach(() => {
  useUnits().unit.value = 'mm';
});

describe('what materials are measured in', () => {
  it('is as it is kept where the ruler is metric', () => {
    const { unit, shown, kept } = measured('g/m²');
    expect([unit, shown(430), kept(430)]).toEqual(['g/m²', 430, 430]);
    expect(measured(undefined).unit).toBe('');
  });

  it('is read and typed in inches and pounds where it is not', () => {
    useUnits().unit.value = 'in';
    // 4 mm = 0.1575 in; 200 lb/1000 ft² = 976.5 g/m²; 2 lb/ft³ = 32.04 kg/m³; 44 lb/in = 7.706 kN/m; 5 psi = 34.47 kPa.
    expect(measured('mm').shown(4)).toBe(0.1575);
    expect(measured('g/m²').kept(200)).toBeCloseTo(976.49, 2);
    expect(measured('kg/m³').kept(2)).toBeCloseTo(32.037, 3);
    expect(measured('kN/m').kept(44)).toBeCloseTo(7.7056, 4);
    expect(measured('kPa').kept(5)).toBeCloseTo(34.474, 3);
    for (const unit of ['mm', 'g', 'g/m', 'g/m²', 'kg/m³', 'kN/m', 'kPa']) {
      const { shown, kept } = measured(unit);
      expect([unit, shown(kept(12.5))]).toEqual([unit, 12.5]);
    }
    // What has no other unit stays.
    expect([measured('N·m').unit, measured('N·m').shown(5.5)]).toEqual(['N·m', 5.5]);
  });

  it('is typed with a fraction too', () => {
    expect(['48', '48.5', '48,5', '48 1/2', '1/2', '3/16', '.5'].map(readNumber)).toEqual([
      48, 48.5, 48.5, 48.5, 0.5, 0.1875, 0.5,
    ]);
    for (const text of ['', 'tall', '1/2/3', '4 mm']) expect([text, readNumber(text)]).toEqual([text, NaN]);
  });
});
