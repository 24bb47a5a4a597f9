import { describe, expect, it } from 'vitest';

import { block, isBlock, laid } from './paste';

const table = {
  weights: ['2 kg', '5 kg'],
  zones: [
    { zone: 'Home', prices: ['4.90', '6.70'], further: '0.70' },
    { zone: 'Abroad', prices: ['11.40', ''], further: '' },
  ],
};

describe('cells of a spreadsheet', () => {
  it('are a block where there is more than one', () => {
    expect(isBlock('6,20\n')).toBe(false);
    expect(isBlock('6,20\t7,10')).toBe(true);
    expect(isBlock('6,20\r\n7,10')).toBe(true);
    expect(block('6,20\t7,10\r\n8\t\r\n')).toEqual([
      ['6,20', '7,10'],
      ['8', ''],
    ]);
  });

  it('go into their cells from the one that they are pasted at; rows that are lacking are added', () => {
    const then = laid(table, block('7\t12\n8\t13\n9\t14'), 1, 1);
    expect(then.weights).toEqual(['2 kg', '5 kg', '', '']);
    // Behind the last zone nothing is added.
    expect(then.zones.map(({ prices }) => prices)).toEqual([
      ['4.90', '6.70', '', ''],
      ['11.40', '7', '8', '9'],
    ]);
    expect(then.zones[0]?.further).toBe('0.70');
  });
});
