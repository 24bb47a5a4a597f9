import { describe, expect, it } from 'vitest';

import cases from '../../../crates/core/testdata/shown-lengths.json';
import { grams, kilograms, lengthNumber, signedLength, size, usedAgain } from './show';

describe('lengths', () => {
  it('are written as the core writes them', () => {
    for (const { mm, shown } of cases) {
      expect([mm, lengthNumber(mm, 'mm'), lengthNumber(mm, 'cm'), lengthNumber(mm, 'in')]).toEqual([
        mm,
        shown.mm,
        shown.cm,
        shown.in,
      ]);
    }
  });

  it('have one unit for a size and a sign for a change', () => {
    expect(size([900, 1200, 38], 'mm')).toBe('900\u202f×\u202f1200\u202f×\u202f38\u00a0mm');
    expect(signedLength(-25.4, 'in')).toBe('−1\u00a0in');
    expect(signedLength(12, 'mm')).toBe('+12\u00a0mm');
  });
});

describe('masses', () => {
  it('have two decimals below ten kilograms', () => {
    expect([kilograms(3420), kilograms(11919), grams(1233.4), grams(2.64)]).toEqual([
      '3.42\u00a0kg',
      '11.9\u00a0kg',
      '1233\u00a0g',
      '2.6\u00a0g',
    ]);
  });

  it('of what was used before have the room that it takes, where that is known', () => {
    expect([usedAgain(0, 0), usedAgain(240, 4.04), usedAgain(1460, 38.6), usedAgain(90, 0)]).toEqual([
      '',
      '240\u00a0g (4.0 litres)',
      '1.46\u00a0kg (39 litres)',
      '90\u00a0g',
    ]);
  });
});
