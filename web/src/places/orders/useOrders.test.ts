import { effectScope, nextTick, ref } from 'vue';
import { describe, expect, it, vi } from 'vitest';

import { useOrders } from './useOrders';

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
    GET: () => Promise.resolve({ number: 'Order', name: 'Ship to', title: null }),
    POST: (_: string, { body }: { body: Asked }) => {
      if (asked.length >= refuse) return Promise.reject(new Error('the server can’t be reached'));
      asked.push(body);
      return Promise.resolve(
        body.rows.map((row) => ({
          number: row['Order'],
          title: '',
          name: row['Ship to'],
          town: '',
          shipment: body.make ? 'id' : null,
          known: false,
          refused: row['Ship to'] ? [] : [{ field: 'name', message: 'nobody is named who gets it' }],
        })),
      );
    },
  },
}));

const table = (rows: number) =>
  ['Order,Ship to', ...Array.from({ length: rows }, (_, at) => `#${String(at)},Buyer ${String(at)}`)].join(
    '\n',
  );

describe('orders of a shop', () => {
  it('takes five thousand rows fifty at a time, and says how far it is', async () => {
    asked.length = 0;
    await effectScope().run(async () => {
      const orders = useOrders(ref(table(5000)));
      // The columns are named as the studio named them the last time, in whatever browser.
      await nextTick();
      await nextTick();
      expect(orders.named.value.number).toBe('Order');
      const far: number[] = [];
      const sending = orders.send(false);
      while (orders.busy.value) {
        far.push(orders.sent.value);
        await Promise.resolve();
      }
      await sending;
      expect(asked).toHaveLength(100);
      expect(asked.every(({ rows }) => rows.length === 50)).toBe(true);
      expect(new Set(far).size).toBeGreaterThan(90);
      expect(orders.fresh.value).toHaveLength(5000);
    });
  });

  it('stops where the server goes away, keeps what came, and says at which row', async () => {
    asked.length = 0;
    refuse = 2;
    await effectScope().run(async () => {
      const orders = useOrders(ref(table(300)));
      await nextTick();
      await nextTick();
      await orders.send(false);
      expect(orders.seen.value).toHaveLength(100);
      expect(orders.trouble.value).toContain('row 101');
    });
    refuse = Infinity;
  });
});
