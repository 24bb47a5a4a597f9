// The sums of a journey: cushions in series, falls, what presses in, a pane, and the odds.
import { answer, api } from '@/api/client';

import { body, may, mm } from './sum';
import type { Answer, Ask, Numbers, Sum } from './sum';

/** The starting curves of the stores, for sums that name no material. */
const CURVES = {
  card: { a_kpa: 110, b_m3_per_kj: 0.006, epsilon_min: 20 },
  bubble: { a_kpa: 17, b_m3_per_kj: 0.1, epsilon_min: 2 },
  kraft: { a_kpa: 20, b_m3_per_kj: 0.075, epsilon_min: 3 },
} as const;
type Stuff = keyof typeof CURVES;

/** What lies on a side: of each stuff a thickness, all as large as the side. */
function side(numbers: Numbers, of: string, area: string) {
  return (Object.keys(CURVES) as Stuff[])
    .filter((stuff) => (numbers[`${of}_${stuff}_mm`] ?? 0) > 0)
    .map((stuff) => ({
      ...CURVES[stuff],
      area_cm2: numbers[area] ?? 0,
      thickness_mm: numbers[`${of}_${stuff}_mm`] ?? 0,
    }));
}

const layer = (of: string, words: string, thick: [number, number, number | null]): Ask[] => [
  mm(`${of}_card_mm`, `Card ${words}`, thick[0]),
  mm(`${of}_bubble_mm`, `Bubble ${words}`, thick[1]),
  { ...may(`${of}_kraft_mm`, `Kraft ${words}`, 'mm'), first: thick[2] },
];
const area = (key: string, label: string, first: number): Ask => ({ key, label, unit: 'cm²', first });
const slide = (key: string, label: string, first: number, most: number, step: number): Ask => ({
  key,
  label,
  unit: '',
  first,
  slider: { least: 0, most, step },
});

/** Two cushions one behind the other, by the numbers of each. */
function series(numbers: Numbers) {
  return [1, 2]
    .filter((place) => numbers[`thickness_${place}_mm`])
    .map((place) => ({
      a_kpa: numbers[`a_${place}_kpa`] ?? 0,
      b_m3_per_kj: numbers[`b_${place}`] ?? 0,
      epsilon_min: numbers[`epsilon_${place}`] ?? 0,
      area_cm2: numbers[`area_${place}_cm2`] ?? 0,
      thickness_mm: numbers[`thickness_${place}_mm`] ?? 0,
    }));
}

const cushion = (place: 1 | 2, words: string, known: [number, number, number, number, number]): Ask[] => [
  { key: `a_${place}_kpa`, label: `a of the ${words}`, unit: 'kPa', first: known[0] },
  { key: `b_${place}`, label: `b of the ${words}`, unit: 'm³/kJ', first: known[1] },
  { key: `epsilon_${place}`, label: `Tested from, ${words}`, unit: 'kJ/m³', first: known[2] },
  area(`area_${place}_cm2`, `Area, ${words}`, known[3]),
  mm(`thickness_${place}_mm`, `Thickness, ${words}`, known[4]),
];

const HAZARD_SUM = [
  ['flat', 'flat falls', 0.15],
  ['edges', 'edges and corners', 0.35],
  ['pressed', 'pressed in', 0.2],
  ['pierced', 'pierced', 0.2],
  ['stacked', 'stacked', 0.05],
  ['damp', 'damp', 0.05],
] as const;

const nothing = () => ({});

export const JOURNEY_SUMS: readonly Sum[] = [
  {
    name: 'series',
    nested: true,
    title: 'Cushions in series',
    about: 'Two cushions one behind the other: one force passes through both.',
    asks: [
      { key: 'mass_kg', label: 'Mass inside them', unit: 'kg', first: 2.5 },
      mm('drop_mm', 'Drop', 760),
      ...cushion(1, 'inner one', [17, 0.1, 2, 2067, 18]),
      ...cushion(2, 'outer one', [20, 0.075, 3, 2700, 40]),
    ],
    tells: [
      { key: 'peak_g', label: 'Shock of the fall', kind: 'g' },
      { key: 'force_n', label: 'Force through both', kind: 'n' },
      { key: 'energies_kj_m3.0', label: 'Energy, inner one', kind: 'kjm3' },
      { key: 'energies_kj_m3.1', label: 'Energy, outer one', kind: 'kjm3' },
    ],
    work: (numbers) =>
      answer<Answer>(
        api.POST('/api/v1/sums/series', {
          body: {
            mass_kg: numbers.mass_kg ?? 0,
            drop_mm: numbers.drop_mm ?? 0,
            layers: series(numbers),
          },
        }),
      ),
    piece: ({ mass_kg }) => ({ weight: mass_kg == null ? '' : `${mass_kg} kg` }),
  },
  {
    name: 'falls',
    nested: true,
    title: 'Falls of a journey',
    about: 'Chance of damage in one fall, with the usual card, bubble and kraft.',
    asks: [
      { key: 'mass_kg', label: 'Mass inside the cushion', unit: 'kg', first: 2.6 },
      { key: 'parcel_kg', label: 'Parcel', unit: 'kg', first: 4.2 },
      mm('longest_mm', 'Longest side of the parcel', 910),
      mm('across_mm', 'Piece, width', 600),
      mm('up_mm', 'Piece, height', 800),
      mm('through_mm', 'Piece, depth', 38),
      { key: 'limit_g', label: 'Shock it takes on its face', unit: 'G', first: 50 },
      { key: 'frequency_hz', label: 'Its own frequency there', unit: 'Hz', first: 20 },
      { key: 'plane_factor', label: 'In its plane, times', unit: '', first: 2.5 },
      { key: 'back_factor', label: 'On its back, times', unit: '', first: 1 },
      area('face_cm2', 'Area of the face', 4800),
      area('up_cm2', 'Area of the top edge', 228),
      area('side_cm2', 'Area of a side edge', 304),
      ...layer('front', 'in front', [8, 18, null]),
      ...layer('back', 'behind', [8, 18, 10]),
      ...layer('up', 'above and below', [12, 27, 15]),
      ...layer('across', 'at the sides', [8, 27, 15]),
    ],
    tells: [
      { key: 'flat', label: 'Flat', kind: 'tiny' },
      { key: 'edges', label: 'Edges and corners', kind: 'tiny' },
      { key: 'parts.edge_up', label: 'Of that, top or bottom', kind: 'tiny' },
      { key: 'parts.edge_across', label: 'Of that, left or right', kind: 'tiny' },
      { key: 'parts.corner', label: 'Of that, a corner', kind: 'tiny' },
    ],
    work: (numbers) => {
      const plain = (key: string) => numbers[key] ?? 0;
      return answer<Answer>(
        api.POST('/api/v1/sums/falls', {
          body: {
            mass_kg: plain('mass_kg'),
            parcel_kg: plain('parcel_kg'),
            longest_mm: plain('longest_mm'),
            core: {
              across_mm: plain('across_mm'),
              up_mm: plain('up_mm'),
              through_mm: plain('through_mm'),
            },
            sides: {
              front: side(numbers, 'front', 'face_cm2'),
              back: side(numbers, 'back', 'face_cm2'),
              up: side(numbers, 'up', 'up_cm2'),
              across: side(numbers, 'across', 'side_cm2'),
            },
            limit_g: plain('limit_g'),
            frequency_hz: plain('frequency_hz'),
            plane_factor: plain('plane_factor'),
            back_factor: plain('back_factor'),
          },
        }),
      );
    },
    piece: ({ across_mm, up_mm, through_mm }) => ({
      width: across_mm == null ? '' : `${across_mm} mm`,
      height: up_mm == null ? '' : `${up_mm} mm`,
      depth: through_mm == null ? '' : `${through_mm} mm`,
    }),
  },
  {
    name: 'pressed',
    nested: true,
    title: 'Pressed in',
    about: 'How far boards over something soft keep a load off the face; less is better.',
    asks: [
      { key: 'outer_nm', label: 'Stiffness D, outer board', unit: 'N·m', first: 5.5 },
      mm('outer_soft_mm', 'Soft under it', 18),
      { ...may('inner_nm', 'Stiffness D, inner board', 'N·m'), first: 5.5 },
      { ...may('inner_soft_mm', 'Soft under that', 'mm'), first: 2 },
    ],
    tells: [{ key: 'measure', label: 'Measure, to compare by', kind: 'plain' }],
    work: (numbers) => {
      const plates = [{ stiffness_nm: numbers.outer_nm ?? 0, soft_mm: numbers.outer_soft_mm ?? 0 }];
      if (numbers.inner_nm != null)
        plates.push({ stiffness_nm: numbers.inner_nm, soft_mm: numbers.inner_soft_mm ?? 0 });
      return answer<Answer>(api.POST('/api/v1/sums/pressed', { body: { plates } }));
    },
    piece: nothing,
  },
  {
    name: 'glass',
    title: 'Strength of glass',
    about: 'A small pane is tough, a large one is not.',
    asks: [
      mm('short_side_mm', 'Short side of the pane', 560),
      may('thickness_mm', 'Thickness, 2 if empty', 'mm'),
    ],
    tells: [
      { key: 'limit_g', label: 'One in twenty breaks at', kind: 'g' },
      { key: 'frequency_hz', label: 'Answers at', kind: 'hz' },
    ],
    work: (numbers) => answer<Answer>(api.POST('/api/v1/sums/glass', { body: body<'GlassSum'>(numbers) })),
    piece: ({ short_side_mm }) => ({
      construction: 'framed_under_glass',
      width: short_side_mm == null ? '' : `${short_side_mm} mm`,
    }),
  },
  {
    name: 'odds',
    nested: true,
    title: 'Odds',
    about: 'Odds with more or less of each hazard, compared with the Standard pack.',
    asks: [
      slide('base_percent', 'Of a hundred in their Standard pack', 0.3, 10, 0.05),
      slide('route', 'Route, national is 1', 1, 4, 0.05),
      { key: 'pieces', label: 'Alike pieces in it', unit: '', first: 1 },
      ...HAZARD_SUM.flatMap(([key, words, share]) => [
        slide(`share_${key}`, `Share of ${words}`, share, 1, 0.05),
        slide(`times_${key}`, `Danger of ${words}, times Standard`, 1, 8, 0.1),
      ]),
      may('expected_so_far', 'Expected damaged so far', ''),
      may('losses_so_far', 'Damaged so far', ''),
    ],
    tells: [
      { key: 'probability', label: 'Arrives damaged', kind: 'onein' },
      { key: 'high', label: 'At worst', kind: 'onein' },
      { key: 'low', label: 'At best', kind: 'onein' },
      { key: 'factor', label: 'Against Standard, times', kind: 'plain' },
      { key: 'k', label: 'By your record, times', kind: 'plain' },
    ],
    work: (numbers) => {
      const each = (value: (key: string) => number) => ({
        flat: value('flat'),
        edges: value('edges'),
        pressed: value('pressed'),
        pierced: value('pierced'),
        stacked: value('stacked'),
        damp: value('damp'),
      });
      const of = (prefix: string) => each((key) => numbers[`${prefix}_${key}`] ?? 0);
      const standard = each(() => 1);
      return answer<Answer>(
        api.POST('/api/v1/sums/odds', {
          body: {
            base_percent: numbers.base_percent ?? 0,
            route: numbers.route ?? 0,
            shares: of('share'),
            measures: of('times'),
            reference: standard,
            pieces: numbers.pieces ?? 1,
            expected_so_far: numbers.expected_so_far ?? 0,
            losses_so_far: numbers.losses_so_far ?? 0,
          },
        }),
      );
    },
    piece: nothing,
  },
  {
    name: 'base',
    nested: true,
    title: 'Of a hundred, by size',
    about: 'How many arrive damaged in their Standard pack on a national way: the larger, the oftener.',
    asks: [
      mm('side_mm', 'Longest side', 1200),
      { key: 'glass_m2', label: 'Glass of a pane or a mirror', unit: 'm²', first: 0.3 },
    ],
    tells: [
      { key: 'canvas', label: 'Stretched canvas, of a hundred', kind: 'plain' },
      { key: 'panel', label: 'Panel or board', kind: 'plain' },
      { key: 'frame', label: 'Frame without glass', kind: 'plain' },
      { key: 'pane', label: 'Frame under glass', kind: 'plain' },
      { key: 'mirror', label: 'Mirror', kind: 'plain' },
    ],
    work: async (numbers) => {
      const of = async (kind: 'canvas' | 'panel' | 'frame' | 'pane' | 'mirror', size: number) =>
        (await answer(api.POST('/api/v1/sums/base', { body: { kind, size } }))).base_percent;
      const [side_mm, glass_m2] = [numbers.side_mm ?? 0, numbers.glass_m2 ?? 0];
      return {
        canvas: await of('canvas', side_mm),
        panel: await of('panel', side_mm),
        frame: await of('frame', side_mm),
        pane: await of('pane', glass_m2),
        mirror: await of('mirror', glass_m2),
      };
    },
    piece: nothing,
  },
  {
    name: 'pierced',
    nested: true,
    title: 'Pierced',
    about: 'How easily a corner, a handle or a fork goes through to the art; less is better.',
    asks: [
      { key: 'front_j', label: 'Boards before the face, together', unit: 'J', first: 9 },
      mm('front_soft_mm', 'Soft before the face', 18),
      { key: 'back_j', label: 'Boards behind, together', unit: 'J', first: 9 },
      mm('back_soft_mm', 'Soft behind', 28),
    ],
    tells: [
      {
        key: 'measure',
        label: 'Measure, to compare by',
        kind: 'plain',
        none: 'no bound: a side has nothing',
      },
    ],
    work: (numbers) => {
      const of = (side: string) => ({
        joules: [numbers[`${side}_j`] ?? 0],
        soft_mm: numbers[`${side}_soft_mm`] ?? 0,
      });
      return answer<Answer>(
        api.POST('/api/v1/sums/pierced', { body: { front: of('front'), back: of('back') } }),
      );
    },
    piece: nothing,
  },
  {
    name: 'harm',
    nested: true,
    title: 'Cost of damage',
    about: 'Falls often break the glass alone: then a new pane is the harm, unless splinters cut the art.',
    asks: [
      { key: 'value', label: 'Worth, in any money', unit: '', first: 600 },
      slide('fall_part', 'Part of the harm that falls do', 0.75, 1, 0.05),
      { key: 'repair', label: 'A new pane with the work, in that money', unit: '', first: 42 },
    ],
    tells: [
      { key: 'plain', label: 'Harm without glass', kind: 'plain' },
      { key: 'bare', label: 'Harm under glass', kind: 'plain' },
      { key: 'guarded', label: 'Harm under taped or laminated glass', kind: 'plain' },
    ],
    work: async (numbers) => {
      const of = async (glazed: boolean, guarded: boolean) => {
        const values = [numbers.value ?? 0];
        const [fall_part, repair] = [numbers.fall_part ?? 0, numbers.repair ?? 0];
        const body = { values, glazed, guarded, fall_part, repair };
        return (await answer(api.POST('/api/v1/sums/harm', { body }))).harm;
      };
      return { plain: await of(false, false), bare: await of(true, false), guarded: await of(true, true) };
    },
    piece: nothing,
  },
];
