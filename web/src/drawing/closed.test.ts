import { describe, expect, it } from 'vitest';

import { closedBox, explodedCase } from './closed';
import type { Closing } from './closed';

const FRAME = { width: 150, height: 86 };
const ALL: Closing[] = [
  'slotted_edge',
  'slotted_face',
  'tray_and_lid',
  'tray_and_tray',
  'slit_tray',
  'folder',
  'folder_lapped',
  'telescope',
  'opens_face',
  'opens_edge_long',
  'opens_edge_short',
  'case',
];
const pointsOf = (points: string) => points.split(' ').map((point) => point.split(',').map(Number));

describe('a closed box', () => {
  it.each(ALL)('%s lies in its frame and shows what opens it', (closing) => {
    for (const sides of [[900, 1200, 80] as const, [300, 200, 12] as const, [400, 400, 400] as const]) {
      const faces = closedBox(closing, sides, FRAME);
      expect(faces.filter(({ kind }) => kind === 'moves').length).toBeGreaterThan(0);
      for (const [x = NaN, y = NaN] of faces.flatMap(({ points }) => pointsOf(points))) {
        expect(x).toBeGreaterThanOrEqual(-0.1);
        expect(x).toBeLessThanOrEqual(FRAME.width + 0.1);
        expect(y).toBeGreaterThanOrEqual(-0.1);
        expect(y).toBeLessThanOrEqual(FRAME.height + 0.1);
      }
    }
  });

  it('is pulled apart where it is a case, with each batten across its lid', () => {
    const made = {
      face_mm: [1550, 1150],
      inside_mm: [1500, 1100, 94],
      caliper_mm: 4,
      batten_mm: 25,
      flat_mm: 44,
    };
    const [none, two] = [0, 2].map((middle) => explodedCase({ ...made, middle }, FRAME));
    // Floor, four battens and lid have three faces each that are seen; so has every batten across.
    expect(none).toHaveLength(18);
    expect(two).toHaveLength(24);
  });

  it('stands where it opens on an edge, and lies where it opens on the face', () => {
    // Of one parcel: how high it is drawn against how wide, flaps left out.
    const shape = (closing: Closing) => {
      const still = closedBox(closing, [600, 900, 60], FRAME).filter(({ kind }) => kind === 'still');
      const all = still.flatMap(({ points }) => pointsOf(points));
      const span = (axis: 0 | 1) =>
        Math.max(...all.map((at) => at[axis] ?? 0)) - Math.min(...all.map((at) => at[axis] ?? 0));
      return span(1) / span(0);
    };
    expect(shape('opens_edge_short')).toBeGreaterThan(shape('opens_edge_long'));
    expect(shape('opens_edge_long')).toBeGreaterThan(shape('opens_face'));
  });
});
