// @vitest-environment happy-dom
import { mount, RouterLinkStub } from '@vue/test-utils';
import { describe, expect, it } from 'vitest';

import type { OrderView } from '@/api/types';

import OrderRows from './OrderRows.vue';

const view = (over: Partial<OrderView>): OrderView => ({
  number: '#1',
  title: 'Winter Reed',
  name: 'Oda Marsh',
  town: 'Tern Bight',
  sku: '',
  piece: null,
  size_from: null,
  planned: false,
  shipment: null,
  known: false,
  refused: [],
  ...over,
});

function rows(seen: OrderView[], shown = seen.map((_, at) => at)) {
  return mount(OrderRows, {
    props: {
      shown,
      seen,
      cellOf: (at, field) => `${field} ${String(at)}`,
      canMend: (field) => field !== 'kind',
    },
    global: { stubs: { RouterLink: RouterLinkStub } },
  });
}

describe('what came of the rows of a table', () => {
  it('is told with what the piece is and where its size is from', () => {
    const mounted = rows([
      view({ piece: 'loose paper, 297 × 420 mm', size_from: 'title', planned: true }),
      view({ piece: 'stretched canvas', size_from: 'row', planned: true, shipment: 'a' }),
      view({ size_from: 'nowhere', shipment: 'b', known: true }),
    ]);
    const told = mounted.findAll('tbody tr').map((row) => row.text().replaceAll(/\s+/gu, ' '));
    expect(told[0]).toContain('297 × 420 mm');
    expect(told[0]).toContain('size from its title');
    expect(told[0]).toContain('new');
    expect(told[1]).toContain('made');
    expect(told[1]).not.toContain('size');
    expect(told[2]).toContain('still to be measured');
    expect(told[2]).toContain('known already');
  });

  it('has a cell for each field that is refused, in which it is mended', async () => {
    const mounted = rows(
      [
        view({}),
        view({
          refused: [
            { field: 'size', message: 'it is wide' },
            { field: 'size', message: 'and odd' },
            { field: 'kind', message: 'no kind' },
          ],
        }),
      ],
      [1, 0],
    );
    const [first] = mounted.findAll('tbody tr');
    expect(first?.attributes('data-row')).toBe('1');
    expect(first?.text()).toContain('it is wide; and odd');
    // The table has no column for it: the reason is told all the same.
    expect(first?.text()).toContain('no kind');
    const cells = mounted.findAll('input');
    expect(cells.map((cell) => cell.attributes('name'))).toEqual(['mend.1.size']);
    expect(cells[0]?.element.value).toBe('size 1');
    await cells[0]?.setValue('60 x 80 cm');
    await cells[0]?.trigger('change');
    expect(mounted.emitted('mend')).toContainEqual([1, 'size', '60 x 80 cm']);
  });
});
