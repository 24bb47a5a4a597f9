import { describe, expect, it } from 'vitest';

import type { Layer, Plan } from '@/api/types';

import { sectionOf } from './section';

const FRAME = { width: 500, height: 360, margin: 34 };
const ADDS = { left_mm: 0, right_mm: 0, top_mm: 0, bottom_mm: 0, front_mm: 0, back_mm: 0 };

function layer(make: object, adds: Partial<typeof ADDS>, more: object = {}): Layer {
  return {
    slot: 'first_wrap',
    material: 'bubble-large',
    adds: { ...ADDS, ...adds },
    envelope: { across_mm: 0, up_mm: 0, through_mm: 0 },
    make,
    ...more,
  } as unknown as Layer;
}

function plan(layers: Layer[]): Plan {
  return { layers, size: { width_mm: 400, height_mm: 500, depth_mm: 20 } } as unknown as Plan;
}

const WRAP = { kind: 'wrap', loaded_thickness_mm: 9, turns: 1, direction: 'up' };

describe('a cut-through', () => {
  it('is to scale from the outermost layer in', () => {
    // 9 in front, 20 of piece and 18 behind fill 360 − 2 × 34 = 292
    const wrap = layer(WRAP, { bottom_mm: 9, front_mm: 9, back_mm: 18 });
    const { piece, scale, layers, outside } = sectionOf(plan([wrap]), 'up', 1, FRAME);
    expect(scale).toBeCloseTo(292 / 47, 9);
    expect(piece.height).toBeCloseTo(20 * scale, 9);
    expect(piece.y - outside.y).toBeCloseTo(9 * scale, 9);
    expect(outside.height).toBeCloseTo(292, 9);
    const [edge, front, back] = layers[0]?.bands ?? [];
    expect([edge?.turns, front?.turns, back?.turns]).toEqual([1, 1, 2]);
    expect(front?.pattern).toBe('bubble');
  });

  it('draws the other end by what lies there, to the same scale and with the piece where it was', () => {
    // 9 at the bottom and 30 at the top, as with fill on the floor alone.
    const wrap = layer(WRAP, { bottom_mm: 9, top_mm: 30, front_mm: 9, back_mm: 18 });
    const near = sectionOf(plan([wrap]), 'up', 1, FRAME);
    const far = sectionOf(plan([wrap]), 'up', 1, { ...FRAME, far: true }, near);
    expect([far.scale, far.piece.x, far.piece.y]).toEqual([near.scale, near.piece.x, near.piece.y]);
    expect(near.piece.x - near.outside.x).toBeCloseTo(9 * near.scale, 9);
    expect(far.piece.x - far.outside.x).toBeCloseTo(30 * near.scale, 9);
  });

  it('draws thicknesses larger when asked, and the piece as it is', () => {
    const wrap = layer(WRAP, { bottom_mm: 9, front_mm: 9, back_mm: 18 });
    const { piece, scale } = sectionOf(plan([wrap]), 'up', 3, FRAME);
    expect(scale).toBeCloseTo(292 / (3 * 27 + 20), 9);
    expect(piece.height).toBeCloseTo(20 * scale, 9);
  });

  it('shows like pieces one behind the other, a board before each', () => {
    // Three of 20, two boards of 4: 48 behind the first.
    const make = { kind: 'bundle', count: 3, across: 1, up: 1, deep: 3, boards: 2, sheets: 0 };
    const envelope = { across_mm: 400, up_mm: 500, through_mm: 68 };
    const { layers, scale } = sectionOf(plan([layer(make, { back_mm: 48 }, { envelope })]), 'up', 1, FRAME);
    const bands = layers[0]?.bands ?? [];
    expect(bands.map(({ pattern }) => pattern)).toEqual(['card', 'art', 'card', 'art']);
    expect(bands[0]?.height).toBeCloseTo(4 * scale, 6);
    expect(bands[1]?.height).toBeCloseTo(20 * scale, 6);
  });

  it('draws the boards around a cradle as large as it, its chocks beside the piece', () => {
    // 25 of board on each side of the piece, chocks of 40 between them cut off where the board ends.
    const chocked = { kind: 'cradle', chock_width_mm: 40, chocks: [] };
    const adds = { bottom_mm: 25, front_mm: 3, back_mm: 4 };
    const cradle = layer(chocked, adds, { slot: 'cradle', material: 'corrugated-c' });
    const boards = { kind: 'face_boards', caliper_mm: 4, proud_mm: 0, behind: false };
    const face = layer(boards, { front_mm: 4 }, { slot: 'face_boards', material: 'corrugated-c', parts: [] });
    const { piece, layers, scale } = sectionOf(plan([cradle, face]), 'up', 1, FRAME);
    const [slab] = layers[0]?.bands ?? [];
    expect(slab?.x).toBeCloseTo(piece.x - 25 * scale, 9);
    const [chock, board] = layers[1]?.bands ?? [];
    expect(chock?.width).toBeCloseTo(25 * scale, 9);
    expect(chock?.height).toBeCloseTo(23 * scale, 9);
    expect(board?.height).toBeCloseTo(4 * scale, 9);
  });

  it('lays pads at the corners only where they lie', () => {
    const make = {
      kind: 'face_pads',
      thickness_mm: 40,
      pads: 4,
      width_mm: 30,
      height_mm: 30,
      area_m2: 0.0036,
    };
    const pads = layer(make, { front_mm: 40, back_mm: 40 }, { slot: 'face_pads' });
    const { layers, scale } = sectionOf(plan([pads]), 'up', 1, FRAME);
    const front = layers[0]?.bands.find(({ outward }) => outward === 'up');
    expect(front?.width).toBeCloseTo(30 * scale, 9);
  });
});
