// What each school of the first questions does, as a few lines on a field of 72 × 48.

/** How a line is drawn: the art, a board or a box, a soft layer, a tape, a covered part. */
type Pen = 'art' | 'line' | 'soft' | 'tape' | 'thin' | 'filled';
export type Drawn = readonly (readonly [Pen, string])[];

const rect = (x: number, y: number, width: number, height: number) =>
  `M${String(x)} ${String(y)}h${String(width)}v${String(height)}h${String(-width)}z`;

/** A cross-section through the middle of a parcel: the piece, and the box around it. */
const PIECE: Drawn[number] = ['art', rect(18, 22, 36, 4)];
const BOX: Drawn[number] = ['line', rect(6, 8, 60, 32)];
/** A wrap around the piece, so far from it. */
const wrap = (by: number): Drawn[number] => ['soft', rect(18 - by, 22 - by, 36 + 2 * by, 4 + 2 * by)];
/** Crumpled paper between a wrapped piece and its box, left and right. */
const ZIGZAG = ['M8 12l4 4-4 4 4 4-4 4 4 4-4 4', 'M64 12l-4 4 4 4-4 4 4 4-4 4 4 4'].map(
  (line): Drawn[number] => ['thin', line],
);

/** The front of a closed parcel. */
const FRONT: Drawn[number] = ['line', rect(10, 6, 52, 36)];
const ARROWS: Drawn[number] = ['line', 'M18 34V24M15 27l3-3 3 3M25 34V24M22 27l3-3 3 3M14 36h15'];
const GLASS: Drawn[number] = ['line', 'M34 24h8v4a4 4 0 0 1-8 0zM38 32v4M35 36h6'];
const DROP: Drawn[number] = ['line', 'M52 24q-4 6-4 8a4 4 0 0 0 8 0q0-2-4-8z'];
const FACE: Drawn[number] = ['line', 'M40 10h12v8H40zM43 14h6'];

/** A box from above, whose flaps meet along the middle. */
const ABOVE: Drawn[number] = ['thin', `${rect(8, 8, 56, 32)}M8 24h56`];
const H: Drawn = [
  ['tape', 'M8 24h56'],
  ['tape', 'M8 8v32'],
  ['tape', 'M64 8v32'],
];
const EDGES: Drawn = [
  ['tape', 'M8 8h56'],
  ['tape', 'M8 40h56'],
];

/** The wrapped piece with its tape, inside its box with another. */
const TAPED: Drawn = [
  ['soft', rect(20, 17, 32, 14)],
  ['line', rect(6, 6, 60, 36)],
];
const OUTSIDE_TAPE: Drawn[number] = ['tape', 'M36 6v8M36 34v8'];

/** The value of a piece as a bar, and how much of it is covered. */
const VALUE: Drawn[number] = ['line', rect(8, 18, 56, 12)];

export const SCHOOL_DRAWINGS: Readonly<Record<string, Drawn>> = {
  'padding.standard': [BOX, PIECE, wrap(3), wrap(6)],
  'padding.lean': [BOX, PIECE, wrap(3)],
  'padding.generous': [
    BOX,
    PIECE,
    wrap(3),
    wrap(6),
    wrap(9),
    ['filled', `${rect(7, 9, 6, 6)}${rect(59, 9, 6, 6)}${rect(7, 33, 6, 6)}${rect(59, 33, 6, 6)}`],
  ],
  'fit.filled': [BOX, PIECE, wrap(4), ...ZIGZAG],
  'fit.snug': [PIECE, wrap(4), ['line', rect(13, 17, 46, 14)]],
  'plastic.no_rule': [
    BOX,
    PIECE,
    [
      'soft',
      'M14 18a2 2 0 0 1 4 0a2 2 0 0 1 4 0a2 2 0 0 1 4 0a2 2 0 0 1 4 0a2 2 0 0 1 4 0a2 2 0 0 1 4 0a2 2 0 0 1 4 0a2 2 0 0 1 4 0a2 2 0 0 1 4 0a2 2 0 0 1 4 0a2 2 0 0 1 4 0',
    ],
    [
      'soft',
      'M14 30a2 2 0 0 0 4 0a2 2 0 0 0 4 0a2 2 0 0 0 4 0a2 2 0 0 0 4 0a2 2 0 0 0 4 0a2 2 0 0 0 4 0a2 2 0 0 0 4 0a2 2 0 0 0 4 0a2 2 0 0 0 4 0a2 2 0 0 0 4 0a2 2 0 0 0 4 0',
    ],
  ],
  'plastic.least': [
    BOX,
    PIECE,
    ['thin', 'M14 18l4-4 4 4 4-4 4 4 4-4 4 4 4-4 4 4 4-4 4 4 4-4'],
    ['thin', 'M14 30l4 4 4-4 4 4 4-4 4 4 4-4 4 4 4-4 4 4 4-4 4 4'],
  ],
  'tape.paper_inside': [...TAPED, OUTSIDE_TAPE, ['thin', rect(33, 17, 6, 14)]],
  'tape.plastic_throughout': [...TAPED, OUTSIDE_TAPE, ['tape', 'M36 17v14']],
  'tape.masking': [...TAPED, OUTSIDE_TAPE, ['thin', `${rect(33, 17, 6, 14)}M33 21l6-4M33 26l6-4M33 31l6-4`]],
  'seal.h': [ABOVE, ...H],
  'seal.every_seam': [ABOVE, ...H, ...EDGES],
  'seal.covered': [
    ABOVE,
    ...H,
    ...EDGES,
    ['filled', `${rect(2, 8, 6, 32)}${rect(64, 8, 6, 32)}${rect(8, 2, 56, 6)}${rect(8, 40, 56, 6)}`],
  ],
  'outside.plain': [FRONT],
  'outside.dressed': [
    FRONT,
    ['soft', 'M10 6l20 18L10 42M62 6L42 24l20 18M30 24h12'],
    ['art', rect(33, 21, 6, 6)],
  ],
  'marks.all': [FRONT, ARROWS, GLASS, DROP, FACE],
  'marks.few': [FRONT, ARROWS, GLASS],
  'marks.none': [FRONT],
  'cover.full': [['filled', rect(8, 18, 56, 12)], VALUE],
  'cover.included': [['filled', rect(8, 18, 16, 12)], VALUE],
  'cover.where_pays': [
    ['filled', `${rect(8, 8, 16, 10)}${rect(8, 30, 56, 10)}`],
    ['line', `${rect(8, 8, 56, 10)}${rect(8, 30, 56, 10)}`],
  ],
};
