// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { describe, expect, it } from 'vitest';

import type { Dearer, Quote } from '@/api/types';
import { shipment } from '@/test/server';

import OtherService from './OtherService.vue';

const eur = (amount: string) => ({ amount, currency: 'EUR' });
const part = (of: Dearer['parts'][number]['part'], amount: string) => ({ part: of, more: eur(amount) });
const quote = shipment().worked.quotes.find(({ offer }) => offer.kind === 'priced') as Quote;

function says(dearer: Partial<Dearer>, besides: Partial<Quote> = {}, late = ''): string {
  const mounted = mount(OtherService, {
    props: {
      quote: { ...quote, uncovered: null, ...besides },
      dearer: { id: quote.id, more: eur('0.00'), parts: [], ...dearer },
      late,
    },
  });
  // Every amount says what it is.
  expect(
    mounted
      .get('.why')
      .text()
      .replaceAll(/\s+/g, ' ')
      .match(/\d+\.\d\d/g)?.length ?? 0,
  ).toBe(mounted.findAll('.why [data-sum]').length + (dearer.billed_by_size_g ? 1 : 0));
  return mounted.get('.why').text().replaceAll(/\s+/g, ' ');
}

describe('why a service costs more', () => {
  it('names the difference and the two parts that make most of it', () => {
    const parts = [part('carriage', '8.00'), part('expected_loss', '3.10'), part('tax', '1.60')];
    // 1.60 is an eighth of 12.70, and there are two larger parts.
    expect(says({ more: eur('12.70'), parts })).toBe('12.70 EUR more: carriage 8.00, expected damage 3.10');
  });

  it('leaves out what explains nothing, and says when size is to blame', () => {
    // 1.00 is a tenth of 10.00.
    const parts = [part('carriage', '9.20'), part('tax', '1.00'), part('expected_loss', '-0.20')];
    expect(says({ more: eur('10.00'), parts, billed_by_size_g: 9500 })).toBe(
      '10.00 EUR more: carriage 9.20; billed by size as 9.50 kg',
    );
  });

  it('says less of one that stands behind for another reason, and the reason', () => {
    const parts = [part('expected_loss', '1.00'), part('carriage', '-4.20')];
    expect(says({ more: eur('-3.20'), parts }, { uncovered: eur('170.00') }, 'too late for 9 Mar')).toBe(
      '3.20 EUR less; too late for 9 Mar; 170.00 EUR not covered',
    );
  });

  it('is opened by its name', async () => {
    const mounted = mount(OtherService, { props: { quote, late: '' } });
    await mounted.get('button').trigger('click');
    expect(mounted.emitted('open')).toHaveLength(1);
  });
});
