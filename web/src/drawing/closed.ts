// A box as it stands closed, with what opens it lifted: seen from above at one corner, its real sides drawn to one scale.
import type { CartonStyle } from '@/api/types';

/** What opens a box. */
export type Closing = CartonStyle | 'opens_face' | 'opens_edge_long' | 'opens_edge_short' | 'case';

type Point = [number, number, number];
export interface ClosedFace {
  points: string;
  /** Whether it is what opens the box, or what one sees in it. */
  kind: 'still' | 'moves' | 'inside';
  light: 'top' | 'front' | 'dark';
}
interface Face {
  corners: Point[];
  kind: ClosedFace['kind'];
  light: ClosedFace['light'];
}

/** Right runs down to the right, back down to the left, up goes up. */
const RIGHT: [number, number] = [0.9, 0.34];
const BACK: [number, number] = [-0.72, 0.42];
/** Flaps are drawn as long as this share of what they close, standing out at this share. */
const FLAP = 0.42;
const LEAN = 0.55;
/** A lid is lifted by this share of the longest side. */
const LIFT = 0.34;
/** A thin parcel is drawn at least as thick as this share of its longest side, so that it can be seen. */
const LEAST = 0.1;

type Sides = readonly [number, number, number];
interface Frame {
  width: number;
  height: number;
}

/** Its three faces that one sees: length to the right, width to the back, height up; from some height on. */
function block(
  length: number,
  width: number,
  height: number,
  at: Point = [0, 0, 0],
  kind: Face['kind'] = 'still',
): Face[] {
  const [x, y, z] = at;
  const [X, Y, Z] = [x + length, y + width, z + height];
  return [
    {
      corners: [
        [x, Y, z],
        [X, Y, z],
        [X, Y, Z],
        [x, Y, Z],
      ],
      kind,
      light: 'dark',
    },
    {
      corners: [
        [X, y, z],
        [X, Y, z],
        [X, Y, Z],
        [X, y, Z],
      ],
      kind,
      light: 'front',
    },
    {
      corners: [
        [x, y, Z],
        [X, y, Z],
        [X, Y, Z],
        [x, Y, Z],
      ],
      kind,
      light: 'top',
    },
  ];
}

/** The top of a box open, its four flaps standing out. */
function flaps(length: number, width: number, height: number): Face[] {
  const reach = Math.min(length, width) * FLAP;
  const [out, up] = [reach * LEAN, reach * (1 - LEAN * LEAN)];
  const z = height;
  const flap = (corners: Point[]): Face => ({ corners, kind: 'moves', light: 'top' });
  return [
    {
      corners: [
        [0, 0, z],
        [length, 0, z],
        [length, width, z],
        [0, width, z],
      ],
      kind: 'inside',
      light: 'dark',
    },
    flap([
      [0, 0, z],
      [length, 0, z],
      [length, -out, z + up],
      [0, -out, z + up],
    ]),
    flap([
      [0, 0, z],
      [0, width, z],
      [-out, width, z + up],
      [-out, 0, z + up],
    ]),
    flap([
      [length, 0, z],
      [length, width, z],
      [length + out, width, z + up],
      [length + out, 0, z + up],
    ]),
    flap([
      [0, width, z],
      [length, width, z],
      [length, width + out, z + up],
      [0, width + out, z + up],
    ]),
  ];
}

/** A box without its top, and what closes it lifted over it. */
function lidded(length: number, width: number, height: number, lid: number): Face[] {
  const lift = height + Math.max(length, width) * LIFT;
  const still = block(length, width, height);
  const open: Face = { ...(still[2] as Face), kind: 'inside', light: 'dark' };
  return [...still.slice(0, 2), open, ...block(length, width, lid, [0, 0, lift], 'moves')];
}

function facesOf(closing: Closing, [long, short, deep]: Sides): Face[] {
  switch (closing) {
    // Standing on its long edge, open above.
    case 'slotted_edge':
    case 'opens_edge_long':
      return [...block(long, deep, short), ...flaps(long, deep, short)];
    case 'opens_edge_short':
      return [...block(short, deep, long), ...flaps(short, deep, long)];
    // Lying on its back, open above.
    case 'slotted_face':
    case 'opens_face':
      return [...block(long, short, deep), ...flaps(long, short, deep)];
    case 'tray_and_lid':
    case 'slit_tray':
      return lidded(long, short, deep, deep * 0.12);
    case 'tray_and_tray':
      return lidded(long, short, deep, Math.min(deep, long * 0.09));
    case 'case':
      return lidded(long, short, deep, deep * 0.16);
    case 'folder':
    case 'folder_lapped': {
      const half = short / 2;
      const rise = half * 0.7;
      const lids: Face[] = [
        {
          corners: [
            [0, 0, deep],
            [long, 0, deep],
            [long, -half * 0.6, deep + rise],
            [0, -half * 0.6, deep + rise],
          ],
          kind: 'moves',
          light: 'top',
        },
        {
          corners: [
            [0, short, deep],
            [long, short, deep],
            [long, short + half * 0.6, deep + rise],
            [0, short + half * 0.6, deep + rise],
          ],
          kind: 'moves',
          light: 'top',
        },
      ];
      const still = block(long, short, deep);
      return [...still.slice(0, 2), { ...(still[2] as Face), kind: 'inside', light: 'dark' }, ...lids];
    }
    case 'telescope': {
      const apart = long * 0.16;
      const half = long * 0.55;
      return [...block(half, short, deep), ...block(half, short, deep, [half + apart, 0, 0], 'moves')];
    }
  }
}

/** Returns the faces of a closed box in a frame, each as the points of a polygon, the furthest first. */
export function closedBox(closing: Closing, sides: Sides, frame: Frame): ClosedFace[] {
  const [across, up, through] = sides;
  const [long, short] = across > up ? [across, up] : [up, across];
  return projected(facesOf(closing, [long, short, Math.max(through, long * LEAST)]), frame);
}

/** A board is drawn at least as thick as this share of its long side, so that it can be seen. */
const BOARD = 0.012;
/** What of a case is apart stands off by this share of its long side. */
const APART = 0.2;

/** Returns a travel case pulled apart: floor, frame and lid with the battens across it, the furthest first. */
export function explodedCase(
  made: {
    face_mm: number[];
    inside_mm: number[];
    caliper_mm: number;
    batten_mm: number;
    middle: number;
    flat_mm: number;
  },
  frame: Frame,
): ClosedFace[] {
  const [long = 1, short = 1] = made.face_mm;
  const high = made.inside_mm[2] ?? 0;
  const board = Math.max(made.caliper_mm, long * BOARD);
  const batten = Math.max(made.batten_mm, long * BOARD);
  const apart = long * APART;
  const at = board + apart;
  const lid = at + high + apart;
  const across = Array.from({ length: made.middle }, (_, place) =>
    block(made.flat_mm, short, batten, [
      ((place + 1) * long) / (made.middle + 1) - made.flat_mm / 2,
      0,
      lid + board,
    ]),
  ).flat();
  return projected(
    [
      ...block(long, short, board),
      ...block(long, batten, high, [0, 0, at]),
      ...block(batten, short - 2 * batten, high, [0, batten, at]),
      ...block(batten, short - 2 * batten, high, [long - batten, batten, at]),
      ...block(long, batten, high, [0, short - batten, at]),
      ...block(long, short, board, [0, 0, lid], 'moves'),
      ...across,
    ],
    frame,
  );
}

/** Faces as polygons in a frame. */
function projected(faces: Face[], frame: Frame): ClosedFace[] {
  const placed = faces.map(({ corners, ...rest }) => ({
    ...rest,
    corners: corners.map(([x, y, z]): [number, number] => [
      x * RIGHT[0] + y * BACK[0],
      x * RIGHT[1] + y * BACK[1] - z,
    ]),
  }));
  const all = placed.flatMap(({ corners }) => corners);
  const [xs, ys] = [all.map(([x]) => x), all.map(([, y]) => y)];
  const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const scale = Math.min(frame.width / (right - left), frame.height / (bottom - top));
  const [dx, dy] = [(frame.width - (right - left) * scale) / 2, frame.height - (bottom - top) * scale];
  return placed.map(({ corners, kind, light }) => ({
    kind,
    light,
    points: corners
      .map(([x, y]) => `${((x - left) * scale + dx).toFixed(1)},${((y - top) * scale + dy).toFixed(1)}`)
      .join(' '),
  }));
}
