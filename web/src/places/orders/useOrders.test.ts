import { effectScope, nextTick, ref } from 'vue';
import { describe, expect, it, vi } from 'vitest';

import { parted, useOrders } from './useOrders';

interface Asked {
  columns: Record<string, string | null>;
  rows: Record<string, string>[];
  make: boolean;
}
const asked: Asked[] = [];
let refuse = Infinity;

vi.mock('@/api/client', () => ({
  answer: (reply: Promise<unknown>) => reply,
  api: {
    POST: (path: string, { body }: { body: Asked }) => {
      if (path.endsWith('/head'))
        return Promise.resolve({
          columns: { number: 'Order', name: 'Ship to' },
          kept: true,
          shop: 'Tern Market',
        });
      if (asked.length >= refuse) return Promise.reject(new Error('the server can’t be reached'));
      asked.push(body);
      return Promise.resolve(
        body.rows.map((row) => ({
          number: row['Order'],
          title: '',
          name: row['Ship to'],
          town: '',
          shipment: body.make && row['Ship to'] ? 'id' : null,
          known: false,
          planned: true,
          refused: row['Ship to'] ? [] : [{ field: 'name', message: "the buyer's name is missing" }],
        })),
      );
    },
  },
}));

const table = (rows: number) =>
  ['Order,Ship to', ...Array.from({ length: rows }, (_, at) => `#${String(at)},Buyer ${String(at)}`)].join(
    '\n',
  );

/** Waits until all that is asked is answered. */
async function looked(orders: ReturnType<typeof useOrders>): Promise<void> {
  await vi.waitFor(() => {
    expect(orders.busy.value).toBeUndefined();
    expect(orders.seen.value.length > 0 || orders.trouble.value !== '').toBe(true);
  });
}

describe('orders of a shop', () => {
  it('are looked over once their head is understood, fifty at a time, and say how far it is', async () => {
    asked.length = 0;
    await effectScope().run(async () => {
      const orders = useOrders(ref(table(5000)));
      const far = new Set<number>();
      while (orders.seen.value.length < 5000) {
        far.add(orders.sent.value);
        await Promise.resolve();
      }
      await looked(orders);
      expect(orders.named.value.number).toBe('Order');
      expect(orders.shop.value).toBe('Tern Market');
      expect(asked).toHaveLength(100);
      expect(asked.every(({ rows, make }) => rows.length === 50 && !make)).toBe(true);
      expect(far.size).toBeGreaterThan(90);
      expect(orders.fresh.value).toHaveLength(5000);
    });
  });

  it('stop where the server goes away, keep what came, and say at which row', async () => {
    asked.length = 0;
    refuse = 2;
    await effectScope().run(async () => {
      const orders = useOrders(ref(table(300)));
      await looked(orders);
      expect(orders.seen.value).toHaveLength(100);
      expect(orders.trouble.value).toContain('row 101');
    });
    refuse = Infinity;
  });

  it('are mended cell by cell, and only that row is looked over once more', async () => {
    asked.length = 0;
    await effectScope().run(async () => {
      const orders = useOrders(ref('Order,Ship to\n#1,Oda Marsh\n#2,\n#3,Brid Tarn'));
      await looked(orders);
      // What is to be put right stands first, and stays where it stands once it is.
      expect(orders.shown.value).toEqual([1, 0, 2]);
      expect(orders.cellOf(1, 'name')).toBe('');
      expect([orders.canMend('name'), orders.canMend('size')]).toEqual([true, false]);
      await orders.mend(1, 'name', 'Corrie Vane');
      expect(asked.at(-1)).toMatchObject({ make: false, rows: [{ Order: '#2', 'Ship to': 'Corrie Vane' }] });
      expect(orders.refused.value).toEqual([]);
      expect(orders.shown.value).toEqual([1, 0, 2]);
      await orders.send(true);
      expect(asked.at(-1)?.rows[1]).toEqual({ Order: '#2', 'Ship to': 'Corrie Vane' });
      expect(orders.made.value).toHaveLength(3);
    });
  });

  it('are looked over anew when somebody says otherwise which column is which', async () => {
    asked.length = 0;
    await effectScope().run(async () => {
      const orders = useOrders(ref('Order,Ship to,Who\n#1,Oda Marsh,Brid Tarn'));
      await looked(orders);
      orders.columns.value.name = 'Who';
      await vi.waitFor(() => {
        expect(asked.at(-1)?.columns['name']).toBe('Who');
      });
      await nextTick();
      expect(asked).toHaveLength(2);
    });
  });

  it('keep the rows of one order together', () => {
    const rows = Array.from({ length: 60 }, (_, at) => ({ Order: at < 48 || at > 52 ? String(at) : 'A' }));
    expect(parted(rows, 'Order').map((part) => part.length)).toEqual([53, 7]);
    expect(parted(rows, null).map((part) => part.length)).toEqual([50, 10]);
    expect(parted([], 'Order')).toEqual([]);
  });
});
