// The shelves of the stores: what each is called, and the fields that its materials have.
import { MEDIA, OPENS } from '@/words/vocabulary';

export type FieldKind =
  'text' | 'number' | 'numbers' | 'price' | 'tick' | 'words' | 'choice' | 'sheets' | 'curve';

export interface Field {
  /** As in the material's JSON; a part of a part with a dot. */
  key: string;
  label: string;
  unit?: string;
  kind: FieldKind;
  /** For words and choices. */
  choices?: readonly { value: string; text: string }[];
  /** Left out when it is empty. */
  optional?: boolean;
  /** Shown in the list of the shelf. */
  listed?: boolean;
}

export type ShelfKey =
  | 'contact_papers'
  | 'boards'
  | 'cushion_wraps'
  | 'foams'
  | 'fills'
  | 'films'
  | 'tapes'
  | 'slip_on_corners'
  | 'sundries'
  | 'tubes'
  | 'cores'
  | 'battens'
  | 'mailers'
  | 'picture_cartons';

export interface Shelf {
  key: ShelfKey;
  name: string;
  one: string;
  fields: readonly Field[];
  /** How its stock is counted. */
  counted: string;
}

const GROUNDS = ['card', 'film', 'wood', 'paper', 'glass'].map((value) => ({ value, text: value }));
const BUILDS = [
  { value: 'corrugated', text: 'corrugated' },
  { value: 'foam_core', text: 'foam core' },
  { value: 'twin_wall', text: 'twin-wall plastic' },
  { value: 'solid', text: 'solid' },
] as const;
const USES = [
  { value: 'name_tag', text: 'name tag' },
  { value: 'desiccant', text: 'desiccant' },
  { value: 'label', text: 'label' },
  { value: 'edge_profile', text: 'edge profile' },
  { value: 'screw', text: 'screw of a case' },
  { value: 'corner_brace', text: 'corner brace' },
  { value: 'handle', text: 'handle' },
  { value: 'foot', text: 'foot' },
  { value: 'glue', text: 'glue, by the gram' },
  { value: 'plate', text: 'flat plate of a case' },
  { value: 'studio_mark', text: 'the studio’s mark' },
] as const;

const KITS = [
  { value: 'carton', text: 'one carton' },
  { value: 'trays', text: 'two trays' },
  { value: 'telescope', text: 'telescope of two halves' },
  { value: 'corners', text: 'set of corners' },
] as const;

const number = (key: string, label: string, unit: string, more: Partial<Field> = {}): Field => ({
  key,
  label,
  unit,
  kind: 'number',
  ...more,
});
const price = (key: string, label: string): Field => ({ key, label, kind: 'price', listed: true });
const tick = (key: string, label: string): Field => ({ key, label, kind: 'tick' });
const PLASTIC = tick('plastic', 'It is plastic');
const CURVE: Field = { key: 'curve', label: 'Cushion curve', kind: 'curve', optional: true };
const LISTED = { listed: true };
const OPTIONAL = { optional: true };

/** What every material records beside its own numbers. */
export const SHELF_FIELDS: readonly Field[] = [
  number('shelf.stock', 'Stock, until it is counted under In stock', '', OPTIONAL),
  tick('shelf.reused', 'Saved from an earlier delivery: costs nothing'),
  tick('shelf.retired', 'Retired: offered no more'),
  { key: 'shelf.supplier', label: 'Supplier', kind: 'text', optional: true },
  number('shelf.lead_days', 'Lead time', 'working days', OPTIONAL),
  { key: 'shelf.substitute', label: 'Substitute, by its id', kind: 'text', optional: true },
];

export const SHELVES: readonly Shelf[] = [
  {
    key: 'contact_papers',
    name: 'Contact layers',
    one: 'contact layer',
    counted: 'm',
    fields: [
      number('areal_density_g_m2', 'Weight', 'g/m²', LISTED),
      number('thickness_mm', 'Thickness', 'mm'),
      number('roll_width_mm', 'Roll', 'mm', LISTED),
      number('sheet_length_mm', 'In sheets this long, as wide as the roll', 'mm', OPTIONAL),
      price('price_per_m', 'Price a metre'),
      { key: 'may_touch', label: 'May touch, once cured', kind: 'words', choices: MEDIA },
      { key: 'touch_with_reason', label: 'May touch for a written reason', kind: 'words', choices: MEDIA },
      tick('plastic', 'It is plastic: never on a bare surface'),
      tick('lets_go', '…but made to let go of one: silicone-coated or polyester'),
      tick('scratches_acrylic', 'It scratches acrylic glazing'),
    ],
  },
  {
    key: 'boards',
    name: 'Boards',
    one: 'board',
    counted: 'sheets',
    fields: [
      number('caliper_mm', 'Caliper', 'mm', LISTED),
      number('areal_density_g_m2', 'Weight', 'g/m²', LISTED),
      number('stiffness_nm', 'Flexural stiffness D', 'N·m', { optional: true, listed: true }),
      number('edge_crush_kn_m', 'Edge crush', 'kN/m', { optional: true, listed: true }),
      number('carries_kg', 'Load limit of a box', 'kg', OPTIONAL),
      number('united_mm', 'Its length, width and height at most', 'mm', OPTIONAL),
      number('puncture_j', 'Takes to be pierced', 'J', OPTIONAL),
      { key: 'build', label: 'Build', kind: 'choice', choices: BUILDS },
      tick('folds', 'Scores and folds: can be a box or a pocket'),
      { key: 'sheets', label: 'Sheets', kind: 'sheets' },
    ],
  },
  {
    key: 'cushion_wraps',
    name: 'Cushion wraps',
    one: 'cushion wrap',
    counted: 'm',
    fields: [
      number('loaded_thickness_mm', 'Loaded thickness', 'mm', LISTED),
      number('areal_density_g_m2', 'Weight', 'g/m²', LISTED),
      number('roll_width_mm', 'Roll', 'mm', LISTED),
      number('tear_pitch_mm', 'Tear pitch', 'mm', OPTIONAL),
      price('price_per_m', 'Price a metre'),
      tick('bubbles', 'It has bubbles on one side'),
      PLASTIC,
      CURVE,
    ],
  },
  {
    key: 'foams',
    name: 'Foams',
    one: 'foam',
    counted: 'sheets',
    fields: [
      number('density_kg_m3', 'Density', 'kg/m³', LISTED),
      tick('sheds', 'It sheds crumbs'),
      PLASTIC,
      { key: 'sheets', label: 'Sheets', kind: 'sheets' },
      { ...CURVE, optional: false },
    ],
  },
  {
    key: 'fills',
    name: 'Fillers',
    one: 'filler',
    counted: 'kg',
    fields: [
      number('density_kg_m3', 'Density, loose', 'kg/m³', LISTED),
      price('price_per_kg', 'Price a kilogram'),
      number('each_litres', 'By the piece, each of', 'litres', OPTIONAL),
      PLASTIC,
      CURVE,
    ],
  },
  {
    key: 'films',
    name: 'Films and bags',
    one: 'film',
    counted: 'm²',
    fields: [
      number('areal_density_g_m2', 'Weight', 'g/m²', LISTED),
      number('thickness_mm', 'Thickness', 'mm', LISTED),
      price('price_per_m2', 'Price a square metre'),
      tick('clings', 'It clings to itself'),
      PLASTIC,
    ],
  },
  {
    key: 'tapes',
    name: 'Tapes',
    one: 'tape',
    counted: 'm',
    fields: [
      number('linear_density_g_m', 'Weight', 'g/m', LISTED),
      price('price_per_m', 'Price a metre'),
      { key: 'holds_on', label: 'Holds on', kind: 'words', choices: GROUNDS },
      { key: 'harms', label: 'Harms when it comes off', kind: 'words', choices: GROUNDS },
      PLASTIC,
    ],
  },
  {
    key: 'slip_on_corners',
    name: 'Slip-on corners',
    one: 'slip-on corner',
    counted: 'pieces',
    fields: [
      number('depth_from_mm', 'Depth from', 'mm', LISTED),
      number('depth_to_mm', 'Depth to', 'mm', LISTED),
      number('leg_mm', 'Leg', 'mm'),
      number('wall_mm', 'Wall', 'mm'),
      number('mass_g', 'Weight', 'g', LISTED),
      price('price', 'Price of one'),
      PLASTIC,
    ],
  },
  {
    key: 'sundries',
    name: 'Tags, sachets, labels',
    one: 'thing by the piece',
    counted: 'pieces',
    fields: [
      { key: 'use', label: 'Use', kind: 'choice', choices: USES, listed: true },
      number('thickness_mm', 'Thickness, or diameter of a screw', 'mm'),
      number('length_mm', 'Length of a screw', 'mm', OPTIONAL),
      number('mass_g', 'Weight', 'g', LISTED),
      price('price', 'Price of one'),
    ],
  },
  {
    key: 'tubes',
    name: 'Tubes',
    one: 'tube',
    counted: 'pieces',
    fields: [
      number('inside_mm', 'Inside', 'mm', LISTED),
      number('wall_mm', 'Wall', 'mm'),
      number('longest_mm', 'Longest', 'mm', LISTED),
      number('linear_density_g_m', 'Weight', 'g/m', LISTED),
      price('price_per_m', 'Price a metre'),
    ],
  },
  {
    key: 'cores',
    name: 'Roll cores',
    one: 'roll core',
    counted: 'pieces',
    fields: [
      number('outside_mm', 'Outside', 'mm', LISTED),
      number('longest_mm', 'Longest', 'mm', LISTED),
      number('linear_density_g_m', 'Weight', 'g/m', LISTED),
      price('price_per_m', 'Price a metre'),
    ],
  },
  {
    key: 'battens',
    name: 'Battens',
    one: 'batten',
    counted: 'pieces',
    fields: [
      number('thickness_mm', 'Thick', 'mm', LISTED),
      number('height_mm', 'High', 'mm', LISTED),
      number('length_mm', 'Long, as sold', 'mm', LISTED),
      number('linear_density_g_m', 'Weight', 'g/m', LISTED),
      price('price_per_m', 'Price a metre'),
      tick('treated', 'Heat-treated and stamped, for parcels that cross a border'),
    ],
  },
  {
    key: 'mailers',
    name: 'Mailers',
    one: 'mailer',
    counted: 'pieces',
    fields: [
      number('inside_width_mm', 'Inside, short side', 'mm', LISTED),
      number('inside_length_mm', 'Inside, long side', 'mm', LISTED),
      number('wall_mm', 'Wall', 'mm'),
      number('stiffness_nm', 'Flexural stiffness D of the wall', 'N·m', OPTIONAL),
      number('mass_g', 'Weight', 'g', LISTED),
      price('price', 'Price of one'),
      PLASTIC,
    ],
  },
  {
    key: 'picture_cartons',
    name: 'Picture cartons',
    one: 'picture carton',
    counted: 'pieces',
    fields: [
      number('longest_mm', 'Takes, long side', 'mm', LISTED),
      number('widest_mm', 'Takes, short side', 'mm', LISTED),
      number('deepest_mm', 'Takes, depth', 'mm', LISTED),
      number('shortest_mm', 'Long side closes to', 'mm', OPTIONAL),
      number('narrowest_mm', 'Short side closes to', 'mm', OPTIONAL),
      number('shallowest_mm', 'Depth closes to', 'mm', OPTIONAL),
      { key: 'depths_mm', label: 'Scored depths, mm', kind: 'numbers', optional: true },
      { key: 'kit', label: 'Kit', kind: 'choice', choices: KITS, optional: true },
      number('parts', 'Parts', ''),
      number('lap_mm', 'Parts lap at least', 'mm', OPTIONAL),
      { key: 'opens', label: 'Opens', kind: 'choice', choices: OPENS },
      number('outside_adds_mm', 'Adds outside, to each side', 'mm', OPTIONAL),
      number('stiffness_nm', 'Flexural stiffness D of the wall', 'N·m', OPTIONAL),
      number('wall_mm', 'Wall', 'mm'),
      number('mass_g', 'Weight', 'g', LISTED),
      price('price', 'Price of one'),
    ],
  },
];

/** A material as its JSON. */
export type Material = { [key: string]: unknown; id: string; name: string };

/** Returns a part of a material, or of a part of it. */
export function partOf(material: Material, key: string): unknown {
  const [first = '', second] = key.split('.');
  const part = material[first];
  return second === undefined ? part : (part as Record<string, unknown> | undefined)?.[second];
}

/** Returns a material with a part set, or taken away when it is undefined. */
export function withPart(material: Material, key: string, value: unknown): Material {
  const [first = '', second] = key.split('.');
  if (second !== undefined) {
    const inner = { ...(material[first] as Record<string, unknown> | undefined) };
    if (value === undefined) Reflect.deleteProperty(inner, second);
    else inner[second] = value;
    return { ...material, [first]: inner };
  }
  const next = { ...material };
  if (value === undefined) Reflect.deleteProperty(next, first);
  else next[first] = value;
  return next;
}

/** Returns a material of a shelf with nothing known of it. */
export function emptyMaterial(shelf: Shelf): Material {
  const empty: Material = { id: '', name: '' };
  for (const { key, kind, optional, choices } of shelf.fields) {
    if (kind === 'tick') empty[key] = false;
    else if (kind === 'words' || kind === 'sheets') empty[key] = [];
    else if (kind === 'choice') empty[key] = choices?.[0]?.value;
    else if (kind === 'curve' && !optional) empty[key] = { a_kpa: 25, b_m3_per_kj: 0.05 };
  }
  return empty;
}
