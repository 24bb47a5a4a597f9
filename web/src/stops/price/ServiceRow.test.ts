// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { describe, expect, it } from 'vitest';

import type { Quote } from '@/api/types';
import { shipment } from '@/test/server';
import { useUnits } from '@/units/useUnits';

import ServiceRow from './ServiceRow.vue';

const quotes = shipment().worked.quotes;
const of = (id: string) => quotes.find((quote) => quote.id === id) as Quote;
const [bulky, parcel] = [of('gannet-post/bulky'), of('gannet-post/parcel')];

function row(quote: Quote, open = false, chosen = false) {
  return mount(ServiceRow, { props: { quote, open, chosen } });
}

describe('a service', () => {
  it('is a row of a table whose name opens it', async () => {
    const mounted = row(bulky);
    expect(mounted.get('th[scope="row"] button').attributes('aria-expanded')).toBe('false');
    expect(mounted.findAll('tr')).toHaveLength(1);
    await mounted.get('th button').trigger('click');
    expect(mounted.emitted('update:open')).toEqual([[true]]);
    expect(mounted.get('th button').attributes('aria-expanded')).toBe('true');
  });

  it('shows every line of its price when it is open, and leaves choosing it to the foot', () => {
    const mounted = row(bulky, true);
    if (bulky.offer.kind !== 'priced') throw new Error('it takes the demo canvas');
    const lines = mounted.findAll('table tr');
    expect(lines).toHaveLength(bulky.offer.lines.length + 1);
    expect(lines.at(-1)?.text()).toContain(bulky.offer.total.amount);
    expect(mounted.find('.btn').exists()).toBe(false);
  });

  it('says why it takes no such parcel, in the unit that is shown', async () => {
    const { unit } = useUnits();
    const mounted = row(parcel);
    expect(mounted.get('.why').text()).toContain('longest side 1320\u00a0mm is over 1200\u00a0mm');
    unit.value = 'cm';
    await mounted.vm.$nextTick();
    expect(mounted.get('.why').text()).toContain('132.0\u00a0cm is over 120.0\u00a0cm');
    unit.value = 'mm';
    expect(mounted.get('.no').text()).toBe('refused');
  });

  it('says that it is chosen, and lets go of it again', async () => {
    const mounted = row(bulky, true, true);
    expect(mounted.get('.mark').text()).toBe('chosen');
    expect(mounted.get('.btn').text()).toBe('Don’t send by it after all');
    await mounted.get('.btn').trigger('click');
    expect(mounted.emitted('notAfterAll')).toHaveLength(1);
  });
});
