import { describe, expect, it } from 'vitest';

import { STOPS } from '@/shipment/stops';

import { HELP } from './pages';

describe('the pages of help', () => {
  it('has one for every stop, called as the stop is', () => {
    for (const { name, title } of STOPS) expect(HELP[name]?.title).toBe(title);
  });

  it('says whole, short sentences, and none twice on a page', () => {
    for (const [name, page] of Object.entries(HELP)) {
      expect(new Set(page?.says).size, name).toBe(5);
      for (const sentence of page?.says ?? []) {
        expect(sentence, name).toMatch(/^[A-Z].*\.$/);
        expect(sentence.split(' ').length, sentence).toBeLessThan(20);
      }
    }
  });
});
