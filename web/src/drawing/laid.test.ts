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

  it('of several on one board shows those that one line crosses, none over another', () => {
    // Two columns of two: upwards 300 + 20 + 200, and 200 + 20 + 300; a line through either crosses two.
    const sides = { a: [200, 300], b: [200, 200], c: [180, 200], d: [180, 300] } as const;
    const own = Object.entries(sides).map(([key, [across, up]]) => ({
      ...piece(key, across, 0),
      wrapped: { across_mm: across, up_mm: up, through_mm: 40 },
      layers: [],
    }));
    const at = (key: string, left: number, below: number) => ({
      ...{ key, left_mm: left, below_mm: below, turned: false },
    });
    const plan = planOf(400);
    const stack = {
      ...plan.stack,
      pieces: own,
      pairs: [],
      tiers: [
        {
          pieces: [at('a', 0, 0), at('b', 0, 320), at('c', 220, 0), at('d', 220, 220)],
          ...{ across_mm: 400, up_mm: 520, through_mm: 40, faces_front: true, from_front_mm: 4 },
        },
      ],
    };
    const frame = { width: 5000, height: 360, margin: 34 };
    const envelope = { across_mm: 420, up_mm: 540, through_mm: 48 };
    const layers = plan.layers.map((layer) => ({ ...layer, envelope }));
    const { members } = sectionOf({ ...plan, layers, stack } as unknown as Plan, 'up', 1, frame);
    expect(members.map(({ title }) => title)).toEqual(['a', 'b']);
    const [lower, upper] = members;
    expect(upper?.wrapped.x).toBeGreaterThan((lower?.wrapped.x ?? 0) + (lower?.wrapped.width ?? 0));
  });
});
