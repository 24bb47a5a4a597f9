// The quick sums of boxes, one for each style.
import { answer, api } from '@/api/client';

import { body, may, mm, typed } from './sum';
import type { Answer, Ask, Sum, SumName, Told } from './sum';

const SIDES: readonly Ask[] = [
  mm('length_mm', 'Inside, long side of the face', 740),
  mm('width_mm', 'Inside, short side', 560),
  mm('height_mm', 'Inside, through the face', 90),
  mm('caliper_mm', 'Caliper', 4),
];
const SLOTTED: readonly Told[] = [
  { key: 'slot_mm', label: 'Slots, wide', kind: 'mm' },
  { key: 'tab_mm', label: 'Tab', kind: 'mm' },
];
const BOARD: Told = { key: 'whole_area_m2', label: 'Board', kind: 'm2' };

/** The size of the first part, and of the second where there is one. */
function parts(first: string, second?: string): Told[] {
  return [
    { key: 'parts.0.width_mm', label: `${first} across`, kind: 'mm' },
    { key: 'parts.0.height_mm', label: `${first} up`, kind: 'mm' },
    ...(second
      ? ([
          { key: 'parts.1.width_mm', label: `${second} across`, kind: 'mm' },
          { key: 'parts.1.height_mm', label: `${second} up`, kind: 'mm' },
        ] as const)
      : []),
    BOARD,
  ];
}

interface Style {
  name: SumName;
  /** As the server calls it. */
  style: string;
  title: string;
  about: string;
  asks?: readonly Ask[];
  tells: readonly Told[];
  piece?: Sum['piece'];
}

function boxed({ style, asks = SIDES, piece = () => ({}), ...rest }: Style): Sum {
  return {
    ...rest,
    path: 'box',
    asks,
    piece,
    box: (numbers) => body<'BoxSum'>(numbers, { style }),
    work: (numbers) =>
      answer<Answer>(api.POST('/api/v1/sums/box', { body: body<'BoxSum'>(numbers, { style }) })),
  };
}

/** A carton that is there, made into another size. */
const SAVED_CARTON: Sum = {
  name: 'saved-carton',
  title: 'A carton you have',
  about: 'Kept from an earlier delivery: cut down in depth or length, or made deeper with a sleeve.',
  asks: [
    mm('length_mm', 'Inside, along its opening', 800),
    mm('width_mm', 'Inside, across it', 600),
    mm('height_mm', 'Inside, deep', 200),
    mm('caliper_mm', 'Caliper', 4),
    { ...may('to_height_mm', 'To be so deep', 'mm'), first: 120 },
    may('to_length_mm', 'To be so long', 'mm'),
    may('sleeve_caliper_mm', 'Caliper of a sleeve', 'mm'),
  ],
  tells: [
    { key: 'depth_refused', label: 'Its depth', kind: 'words', when: 'given' },
    { key: 'depth.below_mm', label: 'Score below the old scores', kind: 'mm', when: 'given' },
    { key: 'depth.flap_mm', label: 'Trim the outer flaps to', kind: 'mm', when: 'given' },
    { key: 'depth.inner_flap_mm', label: 'Trim the inner flaps to', kind: 'mm', when: 'given' },
    { key: 'depth.slot_mm', label: 'Lengthen the slots, wide', kind: 'mm', when: 'given' },
    { key: 'sleeve.width_mm', label: 'Sleeve across', kind: 'mm', when: 'given' },
    { key: 'sleeve.height_mm', label: 'Sleeve up', kind: 'mm', when: 'given' },
    { key: 'sleeve.wall_mm', label: 'Sleeve, from its edge to its scores', kind: 'mm', when: 'given' },
    { key: 'sleeve.inside_length_mm', label: 'Inside the sleeve, along', kind: 'mm', when: 'given' },
    { key: 'sleeve.inside_width_mm', label: 'Inside the sleeve, across', kind: 'mm', when: 'given' },
    { key: 'length_refused', label: 'Its length', kind: 'words', when: 'given' },
    { key: 'length.take_out_mm', label: 'Cut round, and take out', kind: 'mm', when: 'given' },
    { key: 'length.tongue_mm', label: 'Slit one half’s edges back', kind: 'mm', when: 'given' },
    { key: 'length.trim_mm', label: 'Trim each tongue at both sides', kind: 'mm', when: 'given' },
    { key: 'length.patch_mm', label: 'Butt them under a patch, wide', kind: 'mm', when: 'given' },
    { key: 'length.inside_mm.1', label: 'Across inside, at the lap', kind: 'mm', when: 'given' },
    { key: 'length.inside_mm.2', label: 'Deep inside, at the lap', kind: 'mm', when: 'given' },
  ],
  work: (numbers) =>
    answer<Answer>(api.POST('/api/v1/sums/saved-carton', { body: body<'SavedCartonSum'>(numbers) })),
  piece: () => ({}),
};

export const BOX_SUMS: readonly Sum[] = [
  boxed({
    name: 'box',
    style: 'slotted-edge',
    title: 'Edge-opening box',
    about: 'A slotted box that the piece slides into like a letter.',
    tells: [...parts('Blank'), ...SLOTTED],
  }),
  boxed({
    name: 'box-face',
    style: 'slotted-face',
    title: 'Face-opening box',
    about: 'A slotted box that the piece is laid into: easy to load, heavy on board.',
    tells: [...parts('Blank'), ...SLOTTED],
  }),
  boxed({
    name: 'tray',
    style: 'tray-and-lid',
    title: 'Tray and lid',
    about: 'A scored tray with taped corners, and a flat lid on it.',
    tells: parts('Tray', 'Lid'),
  }),
  boxed({
    name: 'tray-over',
    style: 'tray-and-tray',
    title: 'Two-tray box',
    about: 'A scored tray with a shallow tray as its lid, 1 mm larger at each end.',
    tells: parts('Tray', 'Lid'),
  }),
  boxed({
    name: 'slit-tray',
    style: 'slit-tray',
    title: 'Foam-board tray',
    about: 'Foam board slit half through from outside and folded, with a flat lid on it.',
    tells: parts('Tray', 'Lid'),
  }),
  boxed({
    name: 'folder-lapped',
    style: 'folder-lapped',
    title: 'Lapped folder',
    about: 'Wrapped around the piece, its half lids lapping each other by 80 mm.',
    tells: parts('Blank'),
  }),
  boxed({
    name: 'folder',
    style: 'folder',
    title: 'Folder',
    about: 'Wrapped around the piece, its two half lids meeting in the middle.',
    tells: parts('Blank'),
  }),
  boxed({
    name: 'telescope',
    style: 'telescope',
    title: 'Telescope box',
    about: 'Two halves that slide into each other, for a tall or an odd piece.',
    asks: [
      mm('length_mm', 'Inside, the way it slides', 1100),
      mm('width_mm', 'Inside, one side of the section', 820),
      mm('height_mm', 'Inside, the other side', 90),
      mm('caliper_mm', 'Caliper', 4),
    ],
    tells: [
      ...parts('Outer half', 'Inner half'),
      { key: 'least_length_mm', label: 'Closes to', kind: 'mm' },
      { key: 'most_length_mm', label: 'Opens to', kind: 'mm' },
      ...SLOTTED,
    ],
  }),
  boxed({
    name: 'triangular-tube',
    style: 'triangular-tube',
    title: 'Triangular tube',
    about: 'A tube of three sides for a roll, with a cap over each end.',
    asks: [
      mm('outer_roll_mm', 'Roll, outside', 153.8),
      mm('length_mm', 'Side of the sheet that is not rolled', 1000),
      may('wrap_mm', 'Wrap around the roll', 'mm'),
      mm('sheet_mm', 'Sheet with interleaf', 0.9),
      mm('caliper_mm', 'Caliper', 4),
    ],
    tells: [{ key: 'side_mm', label: 'Side, inside', kind: 'mm' }, ...parts('Tube', 'Caps')],
    piece: ({ length_mm }) => ({ construction: 'loose_canvas', width: typed(length_mm) }),
  }),
  SAVED_CARTON,
];
