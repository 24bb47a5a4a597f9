import { describe, expect, it } from 'vitest';

import type { Plan } from '@/api/types';

import { sectionOf } from './section';

const side = (mm: number) => ({
  left_mm: mm,
  right_mm: mm,
  top_mm: mm,
  bottom_mm: mm,
  front_mm: mm,
  back_mm: mm,
});
const piece = (key: string, across: number, wrap: number) => ({
  key,
  title: key,
  size: { width_mm: across, height_mm: across, depth_mm: 20 },
  layers: [{ adds: side(wrap) }],
  wrapped: { across_mm: across + 2 * wrap, up_mm: across + 2 * wrap, through_mm: 20 + 2 * wrap },
});

/** A large piece with one beside it, in a box of 5 all round. */
function planOf(small: number): Plan {
  const large = 4000;
  const envelope = { across_mm: large + 20, up_mm: large + 20, through_mm: 84 };
  return {
    size: { width_mm: large, height_mm: large, depth_mm: 20 },
    stack: {
      pieces: [piece('first', large, 10), piece('p2', small, 10)],
      order: [
        { key: 'p2', faces_front: false, from_front_mm: 0 },
        { key: 'first', faces_front: true, from_front_mm: 44 },
      ],
      tiers: [
        {
          pieces: [{ key: 'p2', left_mm: 0, below_mm: 0, turned: false }],
          ...{
            across_mm: small + 20,
            up_mm: small + 20,
            through_mm: 40,
            faces_front: false,
            from_front_mm: 0,
          },
        },
        {
          pieces: [{ key: 'first', left_mm: 0, below_mm: 0, turned: false }],
          ...{
            across_mm: large + 20,
            up_mm: large + 20,
            through_mm: 40,
            faces_front: true,
            from_front_mm: 44,
          },
        },
      ],
      pairs: [{ folded: false }],
      thickness_mm: 84,
    },
    layers: [
      { slot: 'stack', adds: side(10), envelope, parts: [{ name: 'fill' }], make: { kind: 'laid_together' } },
      { slot: 'fill', adds: side(5), envelope, parts: [], make: { kind: 'edge_fill' } },
    ],
    tally: { adds: side(15) },
  } as unknown as Plan;
}

describe('several pieces cut through', () => {
  it.each([20, 400, 3000, 4000])('lie within the drawing, a piece of %d beside one of 4000', (small) => {
    const frame = { width: 500, height: 360, margin: 34 };
    const { members, boards, layers } = sectionOf(planOf(small), 'up', 1, frame);
    expect(members.map(({ title }) => title)).toEqual(['p2', 'first']);
    for (const { wrapped, piece: bare } of members) {
      for (const { x, width, height } of [wrapped, bare]) {
        expect(width).toBeGreaterThan(0);
        expect(height).toBeGreaterThan(0);
        expect(x + width).toBeLessThanOrEqual(frame.width + 1e-9);
      }
      expect(bare.x).toBeGreaterThanOrEqual(wrapped.x);
    }
    const [front, back] = members;
    // One lies behind the other, a board between, and what is around them is drawn once.
    expect(back?.wrapped.y).toBeGreaterThan((front?.wrapped.y ?? 0) + (front?.wrapped.height ?? 0));
    expect(boards.filter(({ pattern }) => pattern === 'card')).toHaveLength(1);
    expect(boards.filter(({ pattern }) => pattern === 'fill')).toHaveLength(small < 3900 ? 1 : 0);
    expect(layers).toHaveLength(1);
    for (const { width, height } of boards) expect(Math.min(width, height)).toBeGreaterThan(0);
  });
});
