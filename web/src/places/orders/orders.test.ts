import { describe, expect, it } from 'vitest';

import { tableOf } from './useOrders';

describe('a table of orders', () => {
  it('is read by its head, whatever parts its cells', () => {
    expect(tableOf('Order;Ship to\n#1;"Marsh; Oda"\n\n#2;Corrie\n')).toEqual({
      head: ['Order', 'Ship to'],
      rows: [
        { Order: '#1', 'Ship to': 'Marsh; Oda' },
        { Order: '#2', 'Ship to': 'Corrie' },
      ],
    });
  });

  it('has no rows where it is only a head, and drops what stands beyond it', () => {
    expect(tableOf('Order,Name').rows).toEqual([]);
    expect(tableOf('Order,Name\n#1,Oda,beyond').rows).toEqual([{ Order: '#1', Name: 'Oda' }]);
    expect(tableOf('')).toEqual({ head: [], rows: [] });
  });
});
