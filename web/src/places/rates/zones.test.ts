import { describe, expect, it } from 'vitest';

import type { TariffSheet } from '@/api/types';

import { renamed, without } from './zones';

/** Only what a zone's name stands in. */
const sheet = {
  zones: [
    { name: 'Home', countries: ['XS'], postcodes: [] },
    { name: 'Abroad', countries: ['XV'], postcodes: [] },
  ],
  rules: [{ when: { joined: 'all', of: [{ kind: 'zone', is: ['Home', 'Abroad'] }] } }],
  services: [
    {
      prices: { weights: ['2 kg'], zones: [{ zone: 'Home', prices: ['4.90'], further: '' }] },
      formats: [{ prices: { weights: [''], zones: [{ zone: 'Abroad', prices: ['9'], further: '' }] } }],
      rules: [],
      refuses: [{ name: 'far', when: { joined: 'all', of: [{ kind: 'zone', is: ['Abroad'] }] } }],
      cover: { exclusions: [] },
    },
  ],
} as unknown as TariffSheet;

describe('a zone', () => {
  it('changes its name wherever that stands', () => {
    const then = renamed(sheet, 1, 'Over the border');
    expect(then.zones[1]?.name).toBe('Over the border');
    expect(then.rules[0]?.when.of).toEqual([{ kind: 'zone', is: ['Home', 'Over the border'] }]);
    expect(then.services[0]?.formats[0]?.prices.zones[0]?.zone).toBe('Over the border');
    expect(then.services[0]?.refuses[0]?.when.of).toEqual([{ kind: 'zone', is: ['Over the border'] }]);
    expect(then.services[0]?.prices.zones[0]?.zone).toBe('Home');
    // What it was made from stays.
    expect(sheet.zones[1]?.name).toBe('Abroad');
  });

  it('leaves another of its name alone', () => {
    const twice = { ...sheet, zones: [...sheet.zones, { name: 'Home', countries: [], postcodes: [] }] };
    expect(renamed(twice, 2, 'Islands').services[0]?.prices.zones[0]?.zone).toBe('Home');
  });

  it('goes with its prices', () => {
    const then = without(sheet, 0);
    expect(then.zones.map(({ name }) => name)).toEqual(['Abroad']);
    expect(then.services[0]?.prices.zones).toEqual([]);
  });
});
