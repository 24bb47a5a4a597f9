import { describe, expect, it } from 'vitest';

import type { SealStrip } from '@/api/types';

import { sealed, torn } from './sealed';

const BOX = [800, 600, 100] as const;

function strip(from: number[], to: number[], more: Partial<SealStrip> = {}): SealStrip {
  return {
    on: 'over the opening',
    order: 1,
    filament: false,
    first: false,
    length_mm: 900,
    path_mm: [from, to],
    ...more,
  };
}

describe('a sealed box', () => {
  // Over the lid, along a lower edge behind, and around the far end.
  const lid = strip([0, 300, 100], [800, 300, 100]);
  const below = strip([0, 600, 0], [800, 600, 0]);
  const far = strip([800, 0, 50], [800, 600, 50]);

  it('shows from one corner what lies on the three sides seen, and turned over what lies on the others', () => {
    const seen = (over: boolean) => sealed(BOX, [lid, below, far], over).strips.map((one) => one.strip);
    expect(seen(false)).toEqual([lid]);
    expect(seen(true)).toEqual([below, far]);
  });

  it('stays within its picture, every strip on the box', () => {
    for (const over of [false, true]) {
      const { strips, width, height, faces } = sealed(BOX, [lid, below, far], over);
      const points = faces.flatMap((face) => face.split(' ').map((at) => at.split(',').map(Number)));
      for (const [x = NaN, y = NaN] of [...points, ...strips.flatMap(({ from, to }) => [from, to])]) {
        expect(x).toBeGreaterThanOrEqual(0);
        expect(x).toBeLessThanOrEqual(width);
        expect(y).toBeGreaterThanOrEqual(0);
        expect(y).toBeLessThanOrEqual(height);
      }
    }
  });
});

describe('tape as it is torn', () => {
  it('is counted by what it closes and how long it is, in the order in which it is laid', () => {
    const ends = (length_mm: number) => strip([0, 0, 0], [0, 0, 100], { on: 'over its ends', length_mm });
    const strips = [
      strip([0, 0, 0], [1, 0, 0]),
      ends(200),
      strip([0, 0, 0], [1, 0, 0]),
      ends(200),
      ends(250),
    ];
    expect(torn(strips)).toEqual([
      { on: 'over the opening', order: 1, filament: false, pieces: [{ count: 2, length_mm: 900 }] },
      {
        on: 'over its ends',
        order: 1,
        filament: false,
        pieces: [
          { count: 2, length_mm: 200 },
          { count: 1, length_mm: 250 },
        ],
      },
    ]);
  });
});
