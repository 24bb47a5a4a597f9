// What the layers of a plan and their parts are called, with their dimensions in short.
import type { CartonStyle, Layer, MakeOf, Part } from '@/api/types';
import type { Written } from '@/units/useUnits';

import { capital, count, counted } from './grammar';
import { keyOf } from './part';
import { BOX_NAMES, PLACES_IN } from './vocabulary';

type Units = Written;

interface LayerWords {
  name: string;
  make: string;
}

/** Where the strips of a window lie. */
const SPACER_LIES = {
  outside_sheet: 'outside the sheet',
  on_border: 'on the bare border',
  beside: 'bars beside it on a board',
} as const;

/** What a layer is called, and its dimensions in short. */
export function layerWords(layer: Layer, units: Units): LayerWords {
  const { make, material_name: material } = layer;
  switch (make.kind) {
    case 'glass_tape':
      return {
        name: make.pattern === 'star' ? 'Tape star on the glass' : 'Tape lattice on the glass',
        make: `${material}, ${tapes(make)}, ${units.run(make.length_mm)}`,
      };
    case 'fixing': {
      const hinges = 2 * (make.along_long_edges + make.along_short_edges);
      return {
        name: `Board behind, ${counted(hinges, 'hinge')}`,
        make: `${material}, ${units.size(make.width_mm, make.height_mm)}, hinges ${units.length(make.hinge_mm)} long through slits`,
      };
    }
    case 'window_spacer':
      return {
        name: 'Window spacer',
        make: `${material}, ${SPACER_LIES[make.lies]}: ${units.length(make.stands_off_mm)} off the face, strips ${units.length(make.strip_width_mm)} wide`,
      };
    case 'cradle':
      return {
        name: `Cradle board, ${counted(make.chocks.length, 'chock')}`,
        make: `${material}, ${units.size(make.width_mm, make.height_mm)}, chocks ${units.length(make.chock_height_mm)} high`,
      };
    case 'foam_collar':
      return {
        name: 'Collar of foam',
        make: `${material}, ${units.length(make.thickness_mm)} thick, ${units.length(make.stands_off_mm)} over the frame`,
      };
    case 'rim_strip':
      return {
        name: 'Foam around the rim',
        make: `${material}, ${counted(make.count, 'strip')} of ${units.size(make.length_mm, make.height_mm)}, ${units.length(make.thickness_mm)} thick`,
      };
    case 'travel_case':
      return {
        name: 'Travel case',
        make: `${material}, inside ${units.size(...(make.inside_mm as [number, number, number]))}, battens ${units.length(make.batten_mm)}, lined ${units.length(make.lining_mm)}`,
      };
    case 'sandwich':
      return {
        name: make.of_board ? 'Sleeve of board' : 'Sleeve of paper',
        make: `${material}, ${units.size(make.around_mm, make.along_mm)}, taped all round`,
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
        make: `${material}, ${units.size(make.width_mm, make.height_mm)}, ${folioHold(make, units)}`,
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
        name: `${wrapName(layer)}, ${counted(make.turns, 'turn')}`,
        make: `${make.direction === 'up' ? 'top to bottom' : 'side to side'}, ${make.strips > 1 ? `${count(make.strips)} strips, ` : ''}${units.size(make.length_mm, make.width_mm)}`,
      };
    case 'laid_together': {
      const between = [
        make.boards > 0 && counted(make.boards, 'board'),
        make.folded > 0 && 'a folded pad',
        make.pads > 0 && `${counted(make.pads, 'pad')} over hardware`,
        make.chocks > 0 && counted(make.chocks, 'chock'),
        layer.parts.some((part) => keyOf(part) === 'fill') && 'fill beside the smaller ones',
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
        name: `${capital(counted(make.count, 'corner block'))}${make.cut_out_mm > 0 ? `, cut out ${units.length(make.cut_out_mm)} behind` : ''}`,
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
      return `${poured(part.volume_m3 * LITRES)} litres of ${of || part.material_name}, loose`;
    case 'each':
      return `${many}${of || part.name}`;
  }
}

const LITRES = 1000;
const TEN = 10;

/** As the sentences of a step tell it: to a tenth below ten. */
function poured(litres: number): string {
  return litres < TEN ? litres.toFixed(1).replace(/\.0$/, '') : litres.toFixed(0);
}

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

/** A wrap goes around the piece, between the ends of another wrap, or around an inner box. */
function wrapName({ slot, material_name: material }: Layer): string {
  if (slot === 'inset_wrap') return `Inset of ${material.toLowerCase()}`;
  return slot === 'box_wrap' ? `${material}, around the inner box` : material;
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
  const behind = layer.parts.find((part) => keyOf(part) === 'back board')?.material_name ?? '';
  return `; behind ${behind}, ${units.size(make.back.width_mm, make.back.height_mm)}`;
}

/** The sides that a lining lies on. */
function sideWords({ pieces }: MakeOf<'lining'>): string {
  return pieces.map(({ side }) => side).join(', ');
}

/** What holds the sheet in a folio. */
function folioHold({ hinges, pocket_leg_mm }: MakeOf<'folio'>, units: Units): string {
  return hinges
    ? `${counted(hinges.along_upper_edge + hinges.along_lower_edge, 'hinge')} through slits`
    : `paper pockets ${units.length(pocket_leg_mm)}`;
}

function tapes({ upright, level, diagonal }: MakeOf<'glass_tape'>): string {
  return diagonal > 0 ? 'corner to corner and through the middle' : `${upright} upright, ${level} level`;
}

function boxWords(make: MakeOf<'slotted_box' | 'cut_box'>, material: string, units: Units): string {
  return `${material}, blank ${units.size(make.blank.width_mm, make.blank.height_mm)}`;
}
