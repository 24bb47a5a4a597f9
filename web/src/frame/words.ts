// The words for what the core names by a key.
import type { CartonStyle, Fate, Layer, MakeOf, NextAct, Part, Reason } from '@/api/types';
import type { StopName } from '@/shipment/stops';
import * as show from '@/units/show';
import type { Written } from '@/units/useUnits';

type Units = Written;

export const CONSTRUCTIONS = [
  { value: 'stretched_canvas', text: 'Stretched canvas' },
  { value: 'cradled_panel', text: 'Cradled panel' },
  { value: 'rigid_board', text: 'Rigid board' },
  { value: 'framed_under_glass', text: 'Framed under glass' },
  { value: 'framed_under_acrylic', text: 'Framed under acrylic' },
  { value: 'framed_unglazed', text: 'Framed, unglazed' },
  { value: 'mirror', text: 'Mirror' },
  { value: 'loose_paper', text: 'Loose paper' },
  { value: 'loose_canvas', text: 'Loose canvas' },
  { value: 'panel_set', text: 'Set of like panels' },
] as const;

export const MEDIA = [
  { value: 'oil', text: 'Oil' },
  { value: 'oil_fast_drying', text: 'Oil with a fast-drying medium' },
  { value: 'acrylic', text: 'Acrylic' },
  { value: 'watercolour', text: 'Gouache or watercolour' },
  { value: 'encaustic', text: 'Encaustic' },
  { value: 'print', text: 'Print' },
  { value: 'drawing', text: 'Drawing in pencil or ink' },
  { value: 'waxed_paper', text: 'Waxed work on paper' },
  { value: 'pastel_or_charcoal', text: 'Pastel or charcoal' },
  { value: 'photograph', text: 'Photograph' },
  { value: 'resin', text: 'Poured resin' },
  { value: 'gilding', text: 'Gilding or metal leaf' },
  { value: 'collage', text: 'Collage' },
  { value: 'spray_paint', text: 'Spray paint' },
] as const;

/** What goes in besides the piece, as it stands in a sentence. */
export const ENCLOSURES = {
  certificate: 'certificate',
  note: 'care note',
  card: 'card',
  slip: 'packing slip',
  sample: 'sample',
  gift: 'small gift',
  hanging_kit: 'hanging kit',
  other: 'something else',
} as const;

/** Where it lies. */
export const PLACES_IN = {
  on_back: 'on the back of the piece',
  under_last_wrap: 'behind, under the last wrap',
  on_floor: 'on the floor of the box',
  on_top: 'on top of the wrapped piece',
  in_pocket: 'in a pocket outside',
} as const;

/** What is looked at before going on, where a house may only show it. */
export const LOOKS = {
  ready: 'dry, and free of tape, dust and hair',
  glass_tape: 'tape on the glass',
  spacer: 'nothing touches the face',
  sheet: 'the sheet against the art',
  corners: 'corners sit tight',
  boards: 'boards clean, square and bound',
  face_and_top: 'face and top can be told',
  wrap: 'flat side inward, no end loose',
  roll: 'face out, no crease',
  bag: 'the bag is shut',
  still: 'nothing moves when it is tilted',
} as const;

/** What a pane can be. */
export const PANES = [
  { value: 'two', text: 'Glass, 2 mm' },
  { value: 'three', text: 'Glass, 3 mm' },
  { value: 'laminated', text: 'Laminated, 2 × 2 mm' },
] as const;

export const HAZARDS = {
  flat: 'flat falls',
  edges: 'edges and corners',
  pressed: 'pressed in',
  stacked: 'stacked',
  damp: 'damp',
} as const;

export const OUTLINES = [
  { value: 'rectangle', text: 'Rectangle' },
  { value: 'oval', text: 'Oval' },
  { value: 'arched', text: 'Arched top' },
  { value: 'round', text: 'Round' },
  { value: 'irregular', text: 'Irregular' },
] as const;

export const CONDITIONS = [
  { value: 'sound', text: 'Sound' },
  { value: 'flaking', text: 'Flaking or loose' },
] as const;

export const PROTECTED = [
  { value: 'none', text: 'Looked for: none in it' },
  { value: 'some', text: 'There is some in it' },
] as const;

export const OUTCOMES = [
  { value: 'arrived', text: 'Arrived whole' },
  { value: 'damaged', text: 'Arrived damaged' },
  { value: 'lost', text: 'Lost' },
  { value: 'returned', text: 'Came back' },
] as const;

/** What a carrier says has become of a parcel. */
export const FATES: Record<Fate, string> = {
  booked: 'booked, and not handed over yet',
  handed_over: 'handed over',
  on_its_way: 'on its way',
  held: 'held',
  arrived: 'delivered',
  damaged: 'delivered damaged',
  lost: 'lost',
  returned: 'sent back',
};

export const TOPS = [
  { value: 'plain', text: 'The picture shows it' },
  { value: 'marked', text: 'Marked on the back' },
  { value: 'unmarked', text: 'Nothing shows it yet' },
] as const;

export const PAINTS = [
  { value: 'thin', text: 'Thin' },
  { value: 'raised', text: 'Raised marks' },
  { value: 'impasto', text: 'Impasto' },
] as const;

/** The words of a choice, for a sentence. */
export function worded(
  choices: readonly { value: string; text: string }[],
  value: string | null | undefined,
): string {
  return choices.find((choice) => choice.value === value)?.text.toLowerCase() ?? '';
}

/** That there are more Stops than the one that is told. */
function besides(more: number): string {
  return more > 0 ? ` (and ${counted(more, 'more Stop')})` : '';
}

/** What is to be done next, and whether it is in the way of everything else. */
export function nextAct(next: NextAct): { says: string; stop: boolean } {
  switch (next.kind) {
    case 'measure':
      return { says: 'Measure the piece', stop: false };
    case 'let_it_cure':
      return {
        says:
          (next.cured_on
            ? `Stop: not cured until ${show.dayAndYear(next.cured_on)}`
            : `Stop: say when it was finished, it needs ${next.needs}`) + besides(next.more),
        stop: true,
      };
    case 'answer':
      return { says: `Stop: ${next.says}${besides(next.more)}`, stop: true };
    case 'look_at_guard':
      return { says: 'Look at Guard', stop: false };
    case 'look_at_box':
      return { says: 'Look at the box', stop: false };
    case 'say_where':
      return { says: 'Say where it goes', stop: false };
    case 'find_carrier':
      return { says: 'No carrier yet: say what sending costs', stop: false };
    case 'make_it_smaller':
      return { says: 'Stop: no service takes it', stop: true };
    case 'choose_service':
      return { says: 'Choose a service', stop: false };
    case 'pack':
      return { says: 'Ready to pack', stop: false };
    case 'look_at_packing':
      return { says: 'Look at the packing: the plan changed', stop: false };
    case 'weigh_it':
      return { says: 'Packed: weigh it', stop: false };
    case 'look_at_weight':
      return { says: 'Look at the weight', stop: false };
    case 'hand_over':
      return { says: 'Packed and weighed: send it', stop: false };
    case 'follow':
      return { says: 'On its way', stop: false };
    case 'claim':
      return { says: 'Claim it from the carrier', stop: true };
    case 'await_claim':
      return { says: 'The carrier has the claim', stop: false };
    case 'put_away':
      return { says: 'Done: put it in the archive', stop: false };
  }
}

/** The stop at which the next act is done. */
export function stopOf(next: NextAct): StopName {
  switch (next.kind) {
    case 'measure':
    case 'let_it_cure':
    case 'say_where':
      return 'measure';
    case 'answer':
    case 'look_at_guard':
      return 'guard';
    case 'look_at_box':
      return 'box';
    case 'pack':
    case 'look_at_packing':
      return 'pack';
    case 'weigh_it':
    case 'look_at_weight':
      return 'weigh';
    case 'hand_over':
      return 'send';
    case 'follow':
    case 'claim':
    case 'await_claim':
    case 'put_away':
      return 'after';
    default:
      return 'price';
  }
}

/** Why a service does not take a parcel. */
export function reason(why: Reason, units: Units): string {
  switch (why.kind) {
    case 'not_served':
      return 'does not go there';
    case 'too_heavy':
      return `${show.kilograms(why.mass_g)} is over ${show.kilograms(why.most_g)}`;
    case 'too_long':
      return `longest side ${units.length(why.longest_mm)} is over ${units.length(why.most_mm)}`;
    case 'too_wide':
      return `second side ${units.length(why.second_mm)} is over ${units.length(why.most_mm)}`;
    case 'excluded':
      return `does not take ${why.name}`;
    case 'no_format':
      return 'goes into none of its containers';
    case 'not_in_force':
      if (why.from && why.to)
        return `its prices hold from ${show.dayAndYear(why.from)} to ${show.dayAndYear(why.to)}`;
      return why.from
        ? `its prices hold from ${show.dayAndYear(why.from)}`
        : `its prices held until ${show.dayAndYear(why.to ?? '')}`;
    case 'too_large':
      return `length + girth ${units.length(why.length_plus_girth_mm)} is over ${units.length(why.most_mm)}`;
    case 'glass_refused':
      return 'takes no glass';
    case 'others_carton':
      return `the box belongs to ${why.carrier}`;
    case 'no_price':
      return `has no price for ${show.kilograms(why.billable_g)}`;
  }
}

const COUNT = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'] as const;

/** A small number as a word. */
export function count(number: number): string {
  return COUNT[number] ?? String(number);
}

/** A number of things: `one turn`, `two turns`. */
export function counted(number: number, thing: string): string {
  return `${count(number)} ${thing}${number === 1 ? '' : 's'}`;
}

interface LayerWords {
  name: string;
  make: string;
}

/** What a layer is called, and its dimensions in short. */
export function layerWords(layer: Layer, units: Units): LayerWords {
  const { make, material_name: material } = layer;
  switch (make.kind) {
    case 'glass_tape':
      return {
        name: make.pattern === 'star' ? 'Tape star on the glass' : 'Tape lattice on the glass',
        make: `${material}, ${tapes(make)}, ${units.run(make.length_mm)}`,
      };
    case 'window_spacer':
      return {
        name: 'Window spacer',
        make: `${material}, ${counted(make.boards, 'board')}: ${units.length(make.stands_off_mm)} off the face, strips ${units.length(make.strip_width_mm)} wide`,
      };
    case 'contact_sheet':
      return {
        name: `${material}, face and edges`,
        make: `${units.size(make.sheet_width_mm, make.sheet_height_mm)}, ${counted(make.strips, 'strip')}`,
      };
    case 'interleaves':
      return {
        name: `${material}, ${counted(make.count, 'interleaf').replace(/fs$/, 'ves')}`,
        make: `each ${units.size(make.width_mm, make.height_mm)}`,
      };
    case 'bundle':
      return {
        name: `${capital(count(make.count))} in one bundle`,
        make: `${make.across} × ${make.up} × ${make.deep}, ${counted(make.boards, 'board')}${make.sheets ? ` and ${counted(make.sheets, 'sheet')}` : ''} between`,
      };
    case 'folio':
      return {
        name: 'Folio of two boards',
        make: `${material}, ${units.size(make.width_mm, make.height_mm)}, paper pockets ${units.length(make.pocket_leg_mm)}`,
      };
    case 'roll':
      return {
        name: 'Rolled, face out',
        make: `${make.cored ? `on ${material},` : 'inside'} ${units.length(make.inner_mm)}, ${units.length(make.outer_mm)} thick, ${units.length(make.along_mm)} long`,
      };
    case 'card_pockets':
      return {
        name: 'Folded corners',
        make: `leg ${units.number(make.leg_mm)}, walls ${units.number(make.wall_a_mm)} and ${units.length(make.wall_b_mm)}`,
      };
    case 'slip_on_corners':
      return {
        name: `${capital(counted(make.count, 'slip-on corner'))}`,
        make: `${material}, for ${units.number(make.depth_from_mm)} to ${units.length(make.depth_to_mm)}`,
      };
    case 'back_fill':
      return {
        name: 'Canvas-back fill',
        make: `${material}, ${units.size(make.width_mm, make.height_mm, make.thickness_mm)}`,
      };
    case 'face_boards':
      return layer.slot === 'outer_boards'
        ? { name: 'Boards outside', make: `${material}, ${units.size(make.width_mm, make.height_mm)}` }
        : {
            name: make.behind ? 'Boards, front and back' : 'Board in front',
            make: `${material}, ${units.size(make.width_mm, make.height_mm)}, ${make.proud_mm > 0 ? `${units.length(make.proud_mm)} proud` : 'exact'}${behindWords(layer, make, units)}`,
          };
    case 'stretch_film':
      return { name: FILM_NAMES[layer.slot] ?? 'Stretch film', make: counted(make.turns, 'turn') };
    case 'name_tag':
      return { name: material, make: 'says the piece, its face and its top' };
    case 'sealed_bag':
      return {
        name: 'Sealed bag',
        make: `${material}, ${units.size(make.width_mm, make.height_mm)}, ${counted(make.sachets, 'sachet')}`,
      };
    case 'wrap':
      return {
        name: `${layer.slot === 'inset_wrap' ? `Inset of ${material.toLowerCase()}` : material}, ${counted(make.turns, 'turn')}`,
        make: `${make.direction === 'up' ? 'top to bottom' : 'side to side'}, ${make.strips > 1 ? `${count(make.strips)} strips, ` : ''}${units.size(make.length_mm, make.width_mm)}`,
      };
    case 'laid_together': {
      const between = [
        make.boards > 0 && counted(make.boards, 'board'),
        make.folded > 0 && 'a folded pad',
        make.pads > 0 && `${counted(make.pads, 'pad')} over hardware`,
        make.chocks > 0 && counted(make.chocks, 'chock'),
        layer.parts.some(({ name }) => name === 'fill') && 'fill beside the smaller ones',
      ];
      return {
        name: `Pieces laid together, ${count(make.pieces)}`,
        make: `between them ${between.filter(Boolean).join(', ')}`,
      };
    }
    case 'face_pads':
      return {
        name: 'Face pads, front and back',
        make: `${material}, ${make.pads === 1 ? '' : `${count(make.pads)} a side, each `}${units.size(make.width_mm, make.height_mm, make.thickness_mm)}`,
      };
    case 'edge_pads':
      return {
        name: 'Edge pads',
        make: `${material}, ${units.length(make.thickness_mm)} thick, ${units.run(make.length_mm)} of ${units.length(make.width_mm)}`,
      };
    case 'corner_blocks':
      return {
        name: `${capital(counted(make.count, 'corner block'))}`,
        make: `${material}, ${units.length(make.thickness_mm)} thick, bars ${units.number(make.long_bar_mm)} and ${units.length(make.short_bar_mm)}`,
      };
    case 'paper_rolls':
      return {
        name: 'Rolls of paper along the edges',
        make: `${counted((make.upright + make.level) * 2 * make.rows, 'roll')} of ${counted(make.sheets, 'sheet')} ${units.size(make.sheet_length_mm, make.sheet_cut_mm)}, ${units.length(make.settled_mm)} once settled`,
      };
    case 'card_springs':
      return {
        name: 'Springs of folded card',
        make: `${material}, strips ${units.number(make.upright.strip_mm)} and ${units.number(make.level.strip_mm)} × ${units.length(make.width_mm)}, a crease every ${units.length(make.leg_mm)}`,
      };
    case 'skirt':
      return {
        name: `Skirt of ${material.toLowerCase()}`,
        make: `${units.size(make.length_mm, make.width_mm)}, folded lengthwise, around floor and sides`,
      };
    case 'padding_sheets':
      return {
        name: `${capital(counted(make.count, 'padding sheet'))} behind`,
        make: `${material}, ${units.size(make.width_mm, make.height_mm, make.thickness_mm)}`,
      };
    case 'lining':
      return {
        name: make.pieces.length === 6 ? 'Lining of the box' : `Lining, ${sideWords(make)}`,
        make: `${material}, ${units.length(make.thickness_mm)} thick, ${counted(make.pieces.length, 'piece')}`,
      };
    case 'outer_paper':
      return {
        name: `${material} around the box`,
        make: `${units.size(make.around_mm, make.along_mm)}${make.strips > 1 ? ` in ${counted(make.strips, 'strip')}` : ''}${make.marked ? ', with the studio’s mark' : ''}`,
      };
    case 'enclosures':
      return { name: `Goes in: ${material}`, make: PLACES_IN[make.list[0]?.place ?? 'on_top'] };
    case 'marks':
      return { name: 'Handling marks', make: `${make.count} × ${material}` };
    case 'edge_fill':
      return fillWords(layer, make, units);
    case 'slotted_box':
    case 'cut_box':
      return {
        name: boxName(layer, make.style),
        make: boxWords(make, material, units),
      };
    case 'mailer':
      return {
        name: make.count > 1 ? `Two mailers: ${material}` : material,
        make: `${units.size(make.inside_width_mm, make.inside_length_mm)} inside${make.count > 1 ? `, pushed over it from both ends, ${units.length(make.overlap_mm)} lapped` : ''}`,
      };
    case 'saved_box':
      return {
        name: make.second
          ? 'Two cartons of yours, pushed into each other'
          : make.sleeve
            ? 'A carton of yours, with a sleeve'
            : make.cut
              ? 'A carton of yours, cut down'
              : 'A carton of yours',
        make: `${material}, now ${units.size(...(make.inside_mm as [number, number, number]))} inside`,
      };
    case 'bought_box':
      return {
        name: material,
        make: `set to ${units.size(make.inside_length_mm, make.inside_width_mm, make.inside_height_mm)} inside${make.parts > 1 ? `, ${counted(make.parts, 'part')}` : ''}`,
      };
    case 'tube':
      return {
        name: make.triangular ? 'Triangular tube' : material,
        make: make.triangular
          ? `${material}, inner side ${units.length(make.inside_mm)}, sheet ${units.size(make.sheet_width_mm, make.length_mm)}`
          : `${units.length(make.inside_mm)} inside, cut to ${units.length(make.length_mm)}`,
      };
  }
}

/** A part as it is cut, torn or counted: `2 × board 730 × 930 × 4 mm`; of what, where its layer is of something else. */
export function partWords(part: Part, layer: Pick<Layer, 'material'>, units: Units): string {
  const many = part.count > 1 ? `${part.count} × ` : '';
  const of = part.material === layer.material ? '' : part.material_name;
  const also = of ? `, ${of}` : '';
  switch (part.kind) {
    case 'piece':
      return `${many}${part.name} ${units.size(part.width_mm, part.height_mm, part.thickness_mm)}${also}`;
    case 'run':
      return part.width_mm === null || part.width_mm === undefined
        ? `${many}${units.run(part.length_mm)} of ${of || part.name}`
        : `${many}${part.name} ${units.size(part.length_mm, part.width_mm)}${also}`;
    case 'loose':
      return `${(part.volume_m3 * LITRES).toFixed(1)} litres${of ? ` of ${of}` : ', loose'}`;
    case 'each':
      return `${many}${of || part.name}`;
  }
}

const LITRES = 1000;

/** Fill where it lies: between boxes, at the edges and behind, or behind alone where something stands at the edges. */
function fillWords(layer: Layer, make: MakeOf<'edge_fill'>, units: Units): LayerWords {
  const { material_name: material } = layer;
  const much = make.pieces ? counted(make.pieces, 'pillow') : `${make.loose_litres} litres loose`;
  if (layer.slot === 'second_fill')
    return {
      name: `${material}, between the boxes`,
      make: `${units.length(make.clearance_mm)} all round, ${much}`,
    };
  return make.clearance_mm > 0
    ? {
        name: `${material}, edges and behind`,
        make: `${units.number(make.clearance_mm)} at each edge, ${units.length(make.behind_mm)} behind, ${much}`,
      }
    : { name: `${material}, behind`, make: `${units.length(make.behind_mm)} behind, ${much}` };
}

/** Film goes around boards, a wrap or an inner box. */
const FILM_NAMES: Partial<Record<Layer['slot'], string>> = {
  wrap_film: 'Film around the wrap',
  box_film: 'Film around the inner box',
};

/** A box of its style, the second one named so. */
export function boxName(layer: Layer, style: CartonStyle): string {
  const name = BOX_NAMES[style];
  return layer.slot === 'second_box' ? `Second box: ${name.toLowerCase()}` : name;
}

/** The board behind, where it is not as the one in front. */
function behindWords(layer: Layer, make: MakeOf<'face_boards'>, units: Units): string {
  if (!make.back) return '';
  const behind = layer.parts.find(({ name }) => name === 'back board')?.material_name ?? '';
  return `; behind ${behind}, ${units.size(make.back.width_mm, make.back.height_mm)}`;
}

/** The sides that a lining lies on. */
function sideWords({ pieces }: MakeOf<'lining'>): string {
  return pieces.map(({ side }) => side).join(', ');
}

function tapes({ upright, level, diagonal }: MakeOf<'glass_tape'>): string {
  return diagonal > 0 ? 'corner to corner and through the middle' : `${upright} upright, ${level} level`;
}

/** A text with a capital at its beginning. */
export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** A box by its style. */
export const BOX_NAMES: Record<CartonStyle, string> = {
  slotted_edge: 'Slotted box',
  slotted_face: 'Slotted box, opening on the face',
  tray_and_lid: 'Tray and lid',
  tray_and_tray: 'Tray with a tray over it',
  slit_tray: 'Foam-board tray and lid',
  folder: 'Folder',
  folder_lapped: 'Folder, lapped',
  telescope: 'Telescope',
};
export const BOX_STYLES = Object.entries(BOX_NAMES).map(([value, text]) => ({ value, text }));

/** What of a carton that the studio has is cut where it is larger than what goes in. */
export const SAVED_FACES = [
  { value: 'as_it_was', text: 'As it was' },
  { value: 'inside_out', text: 'Turned inside out' },
];
export const SAVED_CUTS = [
  { value: 'depth', text: 'Its depth' },
  { value: 'length_too', text: 'Its depth, and its length' },
];

/** Where the tape goes that closes a box. */
export const BOX_SEALS: Record<CartonStyle, string> = {
  slotted_edge: 'an H at both ends',
  slotted_face: 'an H before and behind',
  tray_and_lid: 'the corners, and the lid all round',
  folder: 'the middle, both ends and their corners',
  tray_and_tray: 'the corners of both, and once around the lid’s edge',
  slit_tray: 'the corners, and the lid all round',
  folder_lapped: 'the lapped edge, both ends and their corners',
  telescope: 'both ends, both joints, and once around',
};

function boxWords(make: MakeOf<'slotted_box' | 'cut_box'>, material: string, units: Units): string {
  return `${material}, blank ${units.size(make.blank.width_mm, make.blank.height_mm)}`;
}

/** A chance as people say it. */
export function oneIn(many: number): string {
  return `1 in ${show.grouped(many)}`;
}

/** What a change adds or takes, with its sign. */
export function signed(by: number, digits = 0): string {
  const shown = Math.abs(by).toFixed(digits);
  return `${by < 0 ? '−' : '+'}${shown}`;
}
