import { describe, expect, it } from 'vitest';

import type { Arrival, Confirmed } from '@/api/types';

import { arrivalWords, confirmedWords, promiseWords, spreadWords } from './arrive';

const arrival: Arrival = {
  id: 'gannet-post/parcel',
  handed_over: '2027-03-05',
  earliest: '2027-03-09',
  latest: '2027-03-11',
  cut_off: '14:30:00',
  promise: 'perhaps',
  over: false,
};

describe('when it arrives', () => {
  it('names the days and the cut-off', () => {
    expect(arrivalWords(arrival)).toBe('Handed over 5 Mar, booked before 14:30, it arrives 9 Mar to 11 Mar');
    expect(arrivalWords({ ...arrival, cut_off: null, latest: '2027-03-09' })).toBe(
      'Handed over 5 Mar, it arrives 9 Mar',
    );
  });

  it('says whether the promised day is met', () => {
    const says = (promise: Arrival['promise']) => promiseWords({ ...arrival, promise }, '2027-03-10');
    expect(says('yes')).toBe('in time for 10 Mar');
    expect(says('perhaps')).toBe('maybe too late for 10 Mar');
    expect(says('no')).toBe('too late for 10 Mar');
    expect(says(null)).toBe('');
    expect(promiseWords({ ...arrival, over: true }, '')).toContain('has expired');
  });
});

describe('what is in doubt', () => {
  const eur = (amount: string) => ({ amount, currency: 'EUR' });

  it('is what a lighter and a heavier parcel would cost', () => {
    const spread = { least_g: 4800, most_g: 5300, at_least: eur('11.20'), at_most: null };
    expect(spreadWords(spread)).toContain('11.20\u00a0EUR at 4.80\u00a0kg, not taken at 5.30\u00a0kg');
    expect(spreadWords(null)).toBe('');
  });

  it('is what the carrier itself says otherwise', () => {
    const said: Confirmed = { id: 'x', says: 'differs', total: eur('12.00'), by_tariff: eur('11.00') };
    expect(confirmedWords(said, true, false)).toContain(
      'says 12.00\u00a0EUR, where its tariff says 11.00\u00a0EUR',
    );
    expect(confirmedWords({ ...said, says: 'agrees' }, true, false)).toContain('the same');
    expect(confirmedWords({ ...said, says: 'nothing', total: null }, true, false)).toContain(
      'does not answer',
    );
    expect(confirmedWords(said, false, false)).toBe('');
    expect(confirmedWords({ ...said, says: 'agrees' }, true, true)).toBe(
      'The stand-in for the carrier says the same.',
    );
  });
});
