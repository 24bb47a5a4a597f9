// Lays a closed box out as it is seen from one corner, with the strips of tape that lie on the sides seen.
// Nothing of the job is worked out here: places and lengths are the core's.
import type { SealStrip } from '@/api/types';

type Place = readonly [number, number, number];
export interface Drawn {
  faces: string[];
  strips: { from: [number, number]; to: [number, number]; strip: SealStrip }[];
  width: number;
  height: number;
  /** Drawing units to a millimetre. */
  scale: number;
}

const COS = Math.cos(Math.PI / 6);
const SIN = Math.sin(Math.PI / 6);
const WIDTH = 300;
const MARGIN = 8;
/** Binary dust between two places that mean the same side. */
const DUST_MM = 0.01;

/** How far out a place stands to the right and up: lengthwise to the right, across to the left, through upward. */
const flat = ([x, y, z]: Place): [number, number] => [(x - y) * COS, -(x + y) * SIN - z];

/**
 * Returns the box seen from one of two opposite corners: with what closes it above, or turned over. To turn it over so that
 * all that was hidden is seen, and nothing is mirrored, its length and its width change places.
 */
export function sealed(outside: Place, strips: readonly SealStrip[], over: boolean): Drawn {
  const [long, wide, h] = outside;
  const [l, w] = over ? [wide, long] : [long, wide];
  const turned = (place: readonly number[]): Place => {
    const [x = 0, y = 0, z = 0] = place;
    return over ? [wide - y, long - x, h - z] : [x, y, z];
  };
  // Seen are the upper side, and the two that come forward: at the near end of both ways across.
  const faces: Place[][] = [
    [
      [0, 0, h],
      [l, 0, h],
      [l, w, h],
      [0, w, h],
    ],
    [
      [0, 0, 0],
      [l, 0, 0],
      [l, 0, h],
      [0, 0, h],
    ],
    [
      [0, 0, 0],
      [0, w, 0],
      [0, w, h],
      [0, 0, h],
    ],
  ];
  const corners = faces.flat().map(flat);
  const [left, right] = [Math.min(...corners.map(([x]) => x)), Math.max(...corners.map(([x]) => x))];
  const [top, bottom] = [Math.min(...corners.map(([, y]) => y)), Math.max(...corners.map(([, y]) => y))];
  const scale = (WIDTH - 2 * MARGIN) / (right - left);
  const at = (place: Place): [number, number] => {
    const [x, y] = flat(place);
    return [(x - left) * scale + MARGIN, (y - top) * scale + MARGIN];
  };
  const near = (one: number, other: number) => Math.abs(one - other) < DUST_MM;
  const seen = (from: Place, to: Place) =>
    (near(from[2], h) && near(to[2], h)) ||
    (near(from[1], 0) && near(to[1], 0)) ||
    (near(from[0], 0) && near(to[0], 0));
  return {
    faces: faces.map((face) => face.map((place) => at(place).join(',')).join(' ')),
    strips: strips
      .flatMap((strip) =>
        strip.path_mm.slice(1).map((to, at) => {
          const from = strip.path_mm[at] ?? to;
          return { strip, ends: [turned(from), turned(to)] as const };
        }),
      )
      .filter(({ ends }) => seen(...ends))
      .map(({ strip, ends }) => ({ strip, from: at(ends[0]), to: at(ends[1]) })),
    width: WIDTH,
    height: (bottom - top) * scale + 2 * MARGIN,
    scale,
  };
}

/** Strips of one kind and length, as they are torn: how many, and how long. */
export interface Torn {
  on: string;
  order: number;
  filament: boolean;
  pieces: { count: number; length_mm: number }[];
}

/** Returns the strips by what they close, in the order in which they are laid. */
export function torn(strips: readonly SealStrip[]): Torn[] {
  const kinds: Torn[] = [];
  for (const { on, order, filament, length_mm } of strips) {
    let kind = kinds.find((known) => known.on === on && known.order === order);
    if (!kind) kinds.push((kind = { on, order, filament, pieces: [] }));
    const piece = kind.pieces.find((known) => Math.abs(known.length_mm - length_mm) < DUST_MM);
    if (piece) piece.count += 1;
    else kind.pieces.push({ count: 1, length_mm });
  }
  return kinds;
}
