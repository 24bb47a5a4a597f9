// @vitest-environment happy-dom
import { readFileSync } from 'node:fs';

import { describe, expect, it } from 'vitest';

import { router } from '@/router';

import { ACTS, found, whereTo } from './acts';

/** The column *found by* of the list of acts. */
const sought = readFileSync('../docs/page-acts.md', 'utf8')
  .split('\n')
  .filter((line) => line.startsWith('| '))
  .slice(1)
  .map((line) => line.split('|')[3]?.trim() ?? '');

describe('an action that is looked for', () => {
  it('is found by the word of every act', () => {
    expect(sought.length).toBeGreaterThan(60);
    for (const word of sought) {
      const address = /^`(\/.*)`$/.exec(word)?.[1];
      if (address) expect(router.resolve(address).name, word).not.toBe('nowhere');
      else if (!word.startsWith('key ')) expect(found(word), word).not.toEqual([]);
    }
  });

  it('leads to a page that there is, and is called as no other', () => {
    expect(new Set(ACTS.map(({ name }) => name)).size).toBe(ACTS.length);
    for (const act of ACTS) {
      const there = router.resolve(whereTo(act, 'a-parcel'));
      expect(there.name, act.name).not.toBe('nowhere');
      expect(there.path.startsWith('/shipments/a-parcel/'), act.name).toBe(act.at.of === 'parcel');
    }
  });

  it('is found by the beginnings of its words, in any order and without accents', () => {
    const names = (search: string) => found(search).map(({ name }) => name);
    expect(names('pack sh')).toEqual(['Print the pack sheet']);
    expect(names('SHEET pack')).toEqual(['Print the pack sheet']);
    expect(names('engineers')).toEqual(['Engineer’s view']);
    expect(names('insurance')).toEqual(['Value', 'Cover']);
    // A word inside another is none: *age* is no *package*.
    expect(names('heet')).toEqual([]);
    expect(names('  ')).toEqual([]);
    // What is called so comes before what is only about it.
    expect(names('size')[0]).toBe('Size');
    expect(names('label').slice(0, 2)).toEqual(['Label', 'Print labels of several parcels']);
  });
});
