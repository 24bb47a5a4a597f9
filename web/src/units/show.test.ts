import { afterEach, describe, expect, it } from 'vitest';

import cases from '../../../crates/core/testdata/shown-lengths.json';
import masses from '../../../crates/core/testdata/shown-masses.json';
import {
  area,
  dayAndYear,
  grams,
  kilograms,
  length,
  lengthNumber,
  manners,
  money,
  run,
  signedLength,
  size,
  usedAgain,
} from './show';

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

  it('come off a roll in metres, or in feet and yards', () => {
    // 2.5 m = 8.2 ft = 2.73 yd; 45 m = 49.2 yd. 0.5 m² = 5.4 sq ft, as the core tells it.
    expect([run(2500, 'mm'), run(2500, 'in'), run(45_000, 'in')]).toEqual([
      '2.5\u00a0m',
      '8.2\u00a0ft',
      '49.2\u00a0yd',
    ]);
    expect([area(0.5, 'cm'), area(0.5, 'in')]).toEqual(['0.50\u00a0m²', '5.4\u00a0sq ft']);
  });

  it('have one unit for a size and a sign for a change', () => {
    expect(size([900, 1200, 38], 'mm')).toBe('900\u202f×\u202f1200\u202f×\u202f38\u00a0mm');
    // 60.325 ÷ 25.4 = 2 3/8, which no line may part; 79.375 ÷ 25.4 = 3 1/8.
    expect(size([60.325, 79.375], 'in')).toBe('2\u00a03/8\u202f×\u202f3\u00a01/8\u00a0in');
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

describe('the way of a studio', () => {
  const usual = { ...manners };
  afterEach(() => {
    Object.assign(manners, usual);
  });

  it.each(masses)('writes $g g as the papers do', ({ g, kg, lb }) => {
    const plain = () => kilograms(g).replaceAll('\u00a0', ' ');
    expect(plain()).toBe(kg);
    manners.mass = 'lb';
    expect(plain()).toBe(lb);
  });

  it('may be pounds and ounces', () => {
    manners.mass = 'lb';
    // 100 g / 28.3495 = 3.527 oz; 453.592 g are a pound; 3600 g are 126.99 oz, which is 7 lb 15 oz.
    expect([100, 453.592, 3600].map(kilograms)).toEqual(['3.5\u00a0oz', '1\u00a0lb', '7\u00a0lb 15\u00a0oz']);
    // Just under a pound is not told as sixteen ounces.
    expect(grams(453)).toBe('1\u00a0lb');
  });

  it('may be a comma, another order of dates, or a finer ruler', () => {
    manners.decimal = 'comma';
    expect(money({ amount: '6.90', currency: 'EUR' })).toBe('6,90\u00a0EUR');
    expect(kilograms(3600)).toBe('3,60\u00a0kg');
    expect(length(902.4, 'cm')).toBe('90,2\u00a0cm');
    expect(dayAndYear('2027-03-04')).toBe('4 Mar 2027');
    manners.date_order = 'mdy';
    expect(dayAndYear('2027-03-04')).toBe('Mar 4, 2027');
    manners.date_order = 'ymd';
    expect(dayAndYear('2027-03-04')).toBe('2027-03-04');
    // 10 mm are 0.3937 in: 6.3 sixteenths, 12.6 thirty-seconds, 3.1 eighths.
    expect([16, 32, 8].map((fraction) => Object.assign(manners, { fraction }) && length(10, 'in'))).toEqual([
      '3/8\u00a0in',
      '13/32\u00a0in',
      '3/8\u00a0in',
    ]);
  });
});
