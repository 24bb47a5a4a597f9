// The quick sums, in the order in which they are offered.
import { answer, api } from '@/api/client';

import { BOX_SUMS } from './boxSums';
import { JOURNEY_SUMS } from './journeySums';
import { body, may, mm, typed } from './sum';
import type { Answer, Sum } from './sum';

export const SUMS: readonly Sum[] = [
  {
    name: 'corner-pocket',
    title: 'Corner pocket',
    about: 'A folded card pocket for the corner of a piece, cut from a square.',
    asks: [
      mm('short_side_mm', 'Short side of the piece', 520),
      mm('depth_mm', 'Depth', 24),
      mm('board_mm', 'Board', 4),
    ],
    tells: [
      { key: 'leg_mm', label: 'Leg', kind: 'mm' },
      { key: 'wall_a_mm', label: 'Wall A', kind: 'mm' },
      { key: 'wall_b_mm', label: 'Wall B', kind: 'mm' },
      { key: 'blank_a_mm', label: 'Blank along A', kind: 'mm' },
      { key: 'blank_b_mm', label: 'Blank along B', kind: 'mm' },
      { key: 'tab_mm', label: 'Tab on wall A', kind: 'mm' },
    ],
    box: ({ depth_mm, board_mm }, { leg_mm }) => ({
      style: 'corner-pocket',
      length_mm: Number(leg_mm),
      height_mm: depth_mm ?? 0,
      caliper_mm: board_mm ?? 0,
    }),
    work: (numbers) =>
      answer<Answer>(api.POST('/api/v1/sums/corner-pocket', { body: body<'CornerPocketSum'>(numbers) })),
    piece: ({ short_side_mm, depth_mm }) => ({ width: typed(short_side_mm), depth: typed(depth_mm) }),
  },
  {
    name: 'contact-sheet',
    title: 'Contact sheet',
    about: 'A sheet over the face and the edges, turned onto the back, from a roll.',
    asks: [
      mm('width_mm', 'Width', 900),
      mm('height_mm', 'Height', 1200),
      mm('depth_mm', 'Depth', 38),
      may('turn_mm', 'Turn, 40 if empty', 'mm'),
      may('roll_width_mm', 'Roll, as wide as needed if empty', 'mm'),
    ],
    tells: [
      { key: 'sheet_width_mm', label: 'Sheet across', kind: 'mm' },
      { key: 'sheet_height_mm', label: 'Sheet up', kind: 'mm' },
      { key: 'strips', label: 'Strips', kind: 'count' },
      { key: 'roll_length_mm', label: 'Off the roll', kind: 'mm' },
      { key: 'area_m2', label: 'Area', kind: 'm2' },
    ],
    work: (numbers) =>
      answer<Answer>(api.POST('/api/v1/sums/contact-sheet', { body: body<'ContactSheetSum'>(numbers) })),
    piece: ({ width_mm, height_mm, depth_mm }) => ({
      width: typed(width_mm),
      height: typed(height_mm),
      depth: typed(depth_mm),
    }),
  },
  {
    name: 'wrap',
    title: 'Wrap',
    about: 'Bubble or foam wound around what is boarded, its ends rolled in.',
    asks: [
      mm('across_mm', 'Across, beside the turns', 910),
      mm('along_mm', 'Along, where it turns', 1210),
      mm('depth_mm', 'Depth', 60),
      { key: 'turns', label: 'Turns', unit: '', first: 2 },
      mm('loaded_thickness_mm', 'Loaded thickness of a layer', 9),
      may('roll_width_mm', 'Roll, as wide as needed if empty', 'mm'),
    ],
    tells: [
      { key: 'length_mm', label: 'Length', kind: 'mm' },
      { key: 'width_mm', label: 'Width', kind: 'mm' },
      { key: 'strips', label: 'Strips', kind: 'count' },
      { key: 'area_m2', label: 'Area', kind: 'm2' },
    ],
    work: (numbers) => answer<Answer>(api.POST('/api/v1/sums/wrap', { body: body<'WrapSum'>(numbers) })),
    piece: ({ across_mm, along_mm, depth_mm }) => ({
      width: typed(across_mm),
      height: typed(along_mm),
      depth: typed(depth_mm),
    }),
  },
  {
    name: 'cushion',
    title: 'Cushion',
    about: 'One foam under one mass: shock of a fall, greatest height, and size of the pad.',
    asks: [
      { key: 'a_kpa', label: 'a of the material', unit: 'kPa', first: 25.5 },
      { key: 'b_m3_per_kj', label: 'b of the material', unit: 'm³/kJ', first: 0.048 },
      { key: 'mass_kg', label: 'Mass inside the cushion', unit: 'kg', first: 3.2 },
      { key: 'area_cm2', label: 'Area under what is stiff', unit: 'cm²', first: 180 },
      mm('thickness_mm', 'Thickness', 40),
      mm('drop_mm', 'Drop', 760),
      { key: 'limit_g', label: 'Shock the piece takes', unit: 'G', first: 50 },
      may('epsilon_min', 'Tested from', 'kJ/m³'),
      may('epsilon_max', 'Tested to', 'kJ/m³'),
    ],
    tells: [
      { key: 'peak_g', label: 'Shock of the fall', kind: 'g', none: 'past the tested range' },
      {
        key: 'survives_mm',
        label: 'Survives a fall of',
        kind: 'mm',
        none: 'too much area for so light a piece',
      },
      {
        key: 'needed_thickness_mm',
        label: 'Thickness needed here',
        kind: 'mm',
        none: 'less area, not more foam',
      },
      { key: 'best.thickness_mm', label: 'Best pad, thickness', kind: 'mm' },
      { key: 'best.area_cm2', label: 'Best pad, area', kind: 'cm2' },
      { key: 'static_kpa', label: 'Static stress', kind: 'kpa' },
      { key: 'energy_kj_m3', label: 'Energy', kind: 'kjm3' },
    ],
    work: (numbers) =>
      answer<Answer>(api.POST('/api/v1/sums/cushion', { body: body<'CushionSum'>(numbers) })),
    piece: ({ mass_kg, limit_g }) => ({
      weight: mass_kg == null ? '' : `${mass_kg} kg`,
      limit_g: limit_g ?? null,
    }),
  },
  {
    name: 'press-in',
    title: 'Press-in',
    about: 'How far a board gives under the corner of another parcel.',
    asks: [
      mm('side_a_mm', 'One side', 560),
      mm('side_b_mm', 'Other side', 740),
      { key: 'stiffness_nm', label: 'Stiffness D, of boards that touch', unit: 'N·m', first: 18 },
      may('load_n', 'Load, 100 if empty', 'N'),
      may('stretch_thickness_mm', 'Stretching thickness', 'mm'),
    ],
    tells: [
      { key: 'deflection_mm', label: 'It gives', kind: 'mm' },
      { key: 'linear_deflection_mm', label: 'By bending alone', kind: 'mm' },
      { key: 'alpha', label: 'α of the plate', kind: 'plain' },
    ],
    work: (numbers) =>
      answer<Answer>(api.POST('/api/v1/sums/press-in', { body: body<'PressInSum'>(numbers) })),
    piece: ({ side_a_mm, side_b_mm }) => ({ width: typed(side_a_mm), height: typed(side_b_mm) }),
  },
  {
    name: 'stack',
    title: 'Stack',
    about: 'Load that a corrugated box bears, flutes upright.',
    asks: [
      { key: 'edge_crush_kn_m', label: 'Edge crush', unit: 'kN/m', first: 5 },
      mm('caliper_mm', 'Caliper', 4),
      mm('perimeter_mm', 'Perimeter', 1700),
      may('safety', 'Safety, 5 if empty', ''),
    ],
    tells: [
      { key: 'bct_n', label: 'It crushes at', kind: 'n' },
      { key: 'allowed_n', label: 'Allowed', kind: 'n' },
    ],
    work: (numbers) => answer<Answer>(api.POST('/api/v1/sums/stack', { body: body<'StackSum'>(numbers) })),
    piece: () => ({}),
  },
  {
    name: 'roll',
    title: 'Roll and tube',
    about: 'How thick a roll becomes, and the tube that it goes into.',
    asks: [
      mm('inner_mm', 'Inner diameter', 150),
      mm('length_mm', 'Side that is rolled up', 1000),
      mm('thickness_mm', 'Sheet with interleaf', 0.9),
      may('wrap_mm', 'Wrap around the roll', 'mm'),
    ],
    tells: [
      { key: 'outer_mm', label: 'Roll', kind: 'mm' },
      { key: 'tube_inside_mm', label: 'Round tube, inside', kind: 'mm' },
      { key: 'triangle_side_mm', label: 'Triangular tube, inner side', kind: 'mm' },
    ],
    work: (numbers) => answer<Answer>(api.POST('/api/v1/sums/roll', { body: body<'RollSum'>(numbers) })),
    piece: ({ length_mm }) => ({ construction: 'loose_canvas', height: typed(length_mm) }),
  },
  ...BOX_SUMS,
  {
    name: 'billable-weight',
    title: 'Billable weight',
    about: 'Weight that a carrier bills: the larger of actual and by size.',
    asks: [
      mm('length_mm', 'Length', 820),
      mm('width_mm', 'Width', 600),
      mm('height_mm', 'Height', 110),
      { key: 'mass_kg', label: 'Weight', unit: 'kg', first: 3.4 },
      { key: 'divisor_cm3_per_kg', label: 'Divisor', unit: 'cm³/kg', first: 5000 },
      may('size_step_mm', 'Sizes rounded up to', 'mm'),
      may('weight_step_kg', 'Weights rounded up to', 'kg'),
      may('minimum_kg', 'At least', 'kg'),
    ],
    tells: [
      { key: 'billable_kg', label: 'Billed as', kind: 'kg' },
      { key: 'governs', label: 'Governed by', kind: 'words' },
      { key: 'actual_kg', label: 'Actual', kind: 'kg' },
      { key: 'volumetric_kg', label: 'Volumetric', kind: 'kg' },
      { key: 'girth_mm', label: 'Girth', kind: 'mm' },
      { key: 'length_plus_girth_mm', label: 'Length + girth', kind: 'mm' },
    ],
    work: (numbers) =>
      answer<Answer>(api.POST('/api/v1/sums/billable-weight', { body: body<'BillableSum'>(numbers) })),
    piece: () => ({}),
  },
  ...JOURNEY_SUMS,
];
