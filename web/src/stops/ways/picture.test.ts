import { describe, expect, it } from 'vitest';

import type { Front, Way } from '@/api/types';

import { FRAME, picture, wayWords } from './picture';

function way(parts: string[], cost: string, about: number, more: Partial<Way> = {}): Way {
  const odds = { about, from: about / 2, to: about * 2 };
  return {
    parts,
    choices: {} as Way['choices'],
    service: 'gannet-post/parcel',
    carrier: 'Gannet Post',
    service_name: 'Parcel',
    cost: { amount: cost, currency: 'EUR' },
    odds,
    minutes: 40,
    plastic_g: 100,
    change: {} as Way['change'],
    is_now: false,
    unbeaten: true,
    leads: true,
    ...more,
  };
}

const front: Front = {
  ways: [
    way(['snug box'], '25.00', 120),
    way([], '30.00', 200, { is_now: true, unbeaten: false, leads: false }),
    way(['a second box'], '60.00', 500),
  ],
  others: [
    { cost: '45.00', about: 60 },
    { cost: '900.00', about: 30 },
  ],
  plans: 3,
  looked_at: 24,
  most: 100,
  done: true,
};

describe('the picture of ways', () => {
  it('has cheaper to the left and safer above', () => {
    const { leading, now, others } = picture(front);
    const [cheap, dear] = leading;
    expect(cheap?.x).toBeLessThan(dear?.x ?? 0);
    expect(cheap?.y).toBeGreaterThan(dear?.y ?? 0);
    expect(now).toHaveLength(1);
    expect(others[0]?.y).toBeGreaterThan(cheap?.y ?? Infinity);
  });

  it('draws what is far out at its edge', () => {
    for (const { x, y } of picture(front).others) {
      expect(x).toBeLessThanOrEqual(FRAME.width - FRAME.right);
      expect(y).toBeLessThanOrEqual(FRAME.height - FRAME.bottom);
    }
  });

  it('says what is otherwise, and who carries it', () => {
    expect(wayWords(front.ways[0] as Way)).toBe('Snug box, by Gannet Post Parcel');
    expect(wayWords(front.ways[1] as Way)).toBe('This plan, by Gannet Post Parcel');
    expect(wayWords(way([], '1.00', 2))).toBe('Packed as it is, by Gannet Post Parcel');
  });
});
