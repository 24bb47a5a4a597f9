// Lays the core's list of envelopes out as a cut-through: where each layer stands, in drawing units.
// Nothing of the job is worked out here; thicknesses are added up in the order of the list.
import type { Addition, Layer, Plan, Stack, StackTier } from '@/api/types';
import { keyOf } from '@/words/part';

import { boardPattern, wrapPattern } from './band';
import type { Band, Pattern } from './band';

/** Which way the parcel is cut: through its bottom edge, or through its left one. */
export type Cut = 'up' | 'across';

export interface SectionLayer {
  kind: Layer['make']['kind'];
  layer: Layer;
  bands: Band[];
  /** The whole of it, to be lit and pressed. */
  box: { x: number; y: number; width: number; height: number };
}

/** A piece of several, in its own layers. */
export interface SectionMember {
  title: string;
  /** With its layers. */
  wrapped: { x: number; y: number; width: number; height: number };
  /** Bare. */
  piece: { x: number; y: number; width: number; height: number };
  faces_front: boolean;
}

export interface Section {
  layers: SectionLayer[];
  /** Several pieces as they lie, from the front; none of one. */
  members: SectionMember[];
  /** What parts them. */
  boards: Band[];
  piece: { x: number; y: number; width: number; height: number };
  /** Millimetres of the parcel in a unit of the drawing. */
  scale: number;
  outside: { x: number; y: number; height: number };
}

export interface Frame {
  width: number;
  height: number;
  margin: number;
  /** Room to the left of the parcel, where that is not the margin. */
  side?: number;
  /** The other end of the parcel: its top or right edge. */
  far?: boolean;
}

interface Side {
  edge: number;
  front: number;
  back: number;
}

function sideOf(adds: Addition, cut: Cut, far = false): Side {
  const [near, other] = cut === 'up' ? [adds.bottom_mm, adds.top_mm] : [adds.left_mm, adds.right_mm];
  const edge = far ? other : near;
  return { edge, front: adds.front_mm, back: adds.back_mm };
}

/** What lies beside the piece takes at most this share of the picture. */
const EDGE_SHARE = 0.5;

/**
 * Returns the section of a plan near one edge, thicknesses drawn so many times as thick; with `like`, in the scale of another one and
 * with the piece where it lies there, so that both can be laid over each other.
 */
export function sectionOf(plan: Plan, cut: Cut, times: number, frame: Frame, like?: Section): Section {
  const sides = plan.layers.slice(plan.stack ? 1 : 0).map((layer) => sideOf(layer.adds, cut, frame.far));
  const total = (pick: keyof Side) => sides.reduce((sum, side) => sum + side[pick] * times, 0);
  // Several pieces are drawn as they lie, and what is around them begins where their stack ends.
  const { stack } = plan;
  const around = stack ? plan.layers.slice(1) : plan.layers;
  const depth = stack ? stack.thickness_mm : plan.size.depth_mm;
  const thick = total('front') + depth + total('back');
  // A thin parcel with a wide margin is drawn smaller, so that its edge stays in the picture.
  const byHeight = (frame.height - 2 * frame.margin) / thick;
  const scale = like?.scale ?? Math.min(byHeight, (frame.width * EDGE_SHARE) / Math.max(total('edge'), 1));
  const right = frame.width;
  const top = like ? like.piece.y - total('front') * scale : (frame.height - thick * scale) / 2;

  let [edge, front, back] = [total('edge') * scale, total('front') * scale, total('back') * scale];
  const left = like?.piece.x ?? (frame.side ?? frame.margin) + edge;
  const piece = {
    x: left,
    y: top + front,
    width: right - left,
    height: depth * scale,
  };
  const held = around.map(holdsOff).lastIndexOf(true);
  const heldEdge = sides.slice(0, held + 1).reduce((sum, side) => sum + side.edge * times * scale, 0);
  const layers: SectionLayer[] = [];
  for (let place = around.length - 1; place >= 0; place -= 1) {
    const [layer, side] = [around[place], sides[place]];
    if (!layer || !side) continue;
    const box = {
      x: piece.x - edge,
      y: piece.y - front,
      width: right - (piece.x - edge),
      height: front + piece.height + back,
    };
    const thick = {
      edge: side.edge * times * scale,
      front: side.front * times * scale,
      back: side.back * times * scale,
    };
    layers.push({
      kind: layer.make.kind,
      layer,
      box,
      bands: bandsOf(layer, box, thick, place > held ? piece.x - heldEdge : piece.x, scale, times),
    });
    [edge, front, back] = [edge - thick.edge, front - thick.front, back - thick.back];
  }
  const outer = layers[0]?.box ?? { ...piece };
  const laid = stack
    ? laidIn(stack, plan.layers[0], { cut, far: frame.far === true }, piece, scale)
    : { members: [], boards: [] };
  return { layers, ...laid, piece, scale, outside: { x: outer.x, y: outer.y, height: outer.height } };
}

/** What lies beside a smaller piece takes at most this share of the room. */
const MOST_BESIDE = 0.45;

/** Where each of several pieces lies in the room of their stack, and what parts them. */
function laidIn(
  stack: Stack,
  layer: Layer | undefined,
  { cut, far }: { cut: Cut; far: boolean },
  room: Section['piece'],
  scale: number,
): { members: SectionMember[]; boards: Band[] } {
  const along = cut === 'up' ? ('up_mm' as const) : ('across_mm' as const);
  const other = cut === 'up' ? ('across_mm' as const) : ('up_mm' as const);
  const whole = layer?.envelope[along] ?? 0;
  const right = room.x + room.width;
  /** Where a piece lies across the line that is cut along. */
  const beside = (on: StackTier['pieces'][number]): [number, number] => {
    const own = stack.pieces.find(({ key }) => key === on.key);
    const from = cut === 'up' ? on.left_mm : on.below_mm;
    return [from, from + (own?.wrapped[on.turned ? along : other] ?? 0)];
  };
  const tiers = stack.tiers.map((tier) => {
    const several = tier.pieces.length > 1;
    // The line that crosses the most of them: what lies beside it isn't seen.
    const crossed = (line: number) =>
      tier.pieces.filter((on) => {
        const [from, to] = beside(on);
        return from <= line && line <= to;
      });
    const lines = tier.pieces.map((on) => crossed((beside(on)[0] + beside(on)[1]) / 2));
    const seen = lines.reduce((most, now) => (now.length > most.length ? now : most), lines[0] ?? []);
    const members = seen.flatMap((on): SectionMember[] => {
      const own = stack.pieces.find(({ key }) => key === on.key);
      if (!own) return [];
      const length = own.wrapped[on.turned ? other : along];
      const begins = cut === 'up' ? on.below_mm : on.left_mm;
      const near = (whole - tier[along]) / 2 + (far ? tier[along] - begins - length : begins);
      // A much smaller piece would begin beyond where the drawing is torn off: alone it is moved in, so that it is seen.
      if (several && near * scale >= room.width) return [];
      const begin = several ? near * scale : Math.min(near * scale, room.width * MOST_BESIDE);
      const x = room.x + begin;
      const ends = several ? Math.min(right, x + length * scale) : right;
      const wrapped = {
        x,
        y: room.y + tier.from_front_mm * scale,
        width: ends - x,
        height: own.wrapped.through_mm * scale,
      };
      const sum = (pick: keyof Side) =>
        own.layers.reduce((so, { adds }) => so + sideOf(adds, cut)[pick], 0) * scale;
      const edge = sum('edge');
      const left = wrapped.x + Math.min(edge, wrapped.width / 2);
      const shown = ends < right ? Math.max(left, ends - edge) : ends;
      const piece = {
        x: left,
        y: wrapped.y + sum(tier.faces_front ? 'front' : 'back'),
        width: shown - left,
        height: own.size.depth_mm * scale,
      };
      return [{ title: own.title, wrapped, piece, faces_front: tier.faces_front }];
    });
    return { tier, several, members };
  });
  const members = tiers.flatMap((one) => one.members);
  // What is smaller than the stack has fill beside it, and what lies side by side between.
  const hasFill = layer?.parts.some((part) => keyOf(part) === 'fill') === true;
  const band = (pattern: Pattern, part: Pick<Band, 'x' | 'y' | 'width' | 'height'>): Band => ({
    ...part,
    pattern,
    outward: 'left',
    turns: 1,
  });
  const filled = tiers.flatMap(({ tier, several, members: [first] }) => {
    const y = room.y + tier.from_front_mm * scale;
    const height = tier.through_mm * scale;
    const width = several ? room.width : (first?.wrapped.x ?? room.x) - room.x;
    return hasFill && width > 2 ? [band('fill', { x: room.x, y, width, height })] : [];
  });
  const boards = tiers.slice(1).flatMap(({ tier, members: own }, at): Band[] => {
    const before = tiers[at];
    const pair = stack.pairs[at];
    if (!before || !pair) return [];
    const y = room.y + (before.tier.from_front_mm + before.tier.through_mm) * scale;
    const begin = ({ wrapped }: SectionMember) => wrapped.x;
    const x = Math.min(right, ...before.members.map(begin), ...own.map(begin));
    const pattern = pair.folded ? ('bubble' as const) : ('card' as const);
    const height = room.y + tier.from_front_mm * scale - y;
    return [{ ...band(pattern, { x, y, width: right - x, height }), outward: 'up' }];
  });
  return { members, boards: [...filled, ...boards] };
}

type Box = SectionLayer['box'];

/** Whether a layer holds the piece off its boards, which are then as large as that and not as the piece. */
function holdsOff({ slot, make }: Layer): boolean {
  switch (make.kind) {
    case 'cradle':
    case 'foam_collar':
    case 'rim_strip':
      return true;
    case 'corner_blocks':
      return slot === 'corners';
    case 'window_spacer':
      return make.lies === 'beside';
    default:
      return false;
  }
}

/** Front, back and edge of one layer. */
function bandsOf(
  layer: Layer,
  box: Box,
  thick: Side,
  pieceLeft: number,
  scale: number,
  times: number,
): Band[] {
  const { make } = layer;
  const bottom = box.y + box.height;
  const inner = {
    x: box.x + thick.edge,
    y: box.y + thick.front,
    height: box.height - thick.front - thick.back,
  };
  const band = (pattern: Pattern, part: Partial<Band>): Band => ({
    x: box.x,
    y: box.y,
    width: box.width,
    height: box.height,
    pattern,
    outward: 'up',
    turns: 1,
    ...part,
  });
  const around = (pattern: Pattern, turns: { edge: number; front: number; back: number }): Band[] => [
    band(pattern, {
      x: box.x,
      y: inner.y,
      width: thick.edge,
      height: inner.height,
      outward: 'left',
      turns: turns.edge,
    }),
    band(pattern, { height: thick.front, turns: turns.front }),
    band(pattern, { y: bottom - thick.back, height: thick.back, outward: 'down', turns: turns.back }),
  ];
  const near = (width: number) => (part: Band) =>
    part.outward === 'left' ? part : { ...part, width: Math.min(width, part.width) };
  switch (make.kind) {
    case 'glass_tape':
    case 'laid_together':
    case 'marks':
    case 'back_fill':
    case 'roll':
    case 'tube':
      return [];
    case 'travel_case': {
      // Plywood before and behind, battens along the edge, foam within; what else is thick are battens outside, and feet.
      const [batten = 0, lining = 0, board = 0] = [make.batten_mm, make.lining_mm, make.caliper_mm].map(
        (mm) => mm * times * scale,
      );
      const x = box.x + thick.edge - lining - batten;
      const slab = { x, width: box.x + box.width - x };
      const pattern = boardPattern(layer.material);
      // What the battens are higher than what lies in the case is filled behind.
      const deeper = make.deeper_mm * times * scale;
      const [top, foot] = [inner.y - lining, inner.y + inner.height + deeper];
      return [
        band(pattern, { ...slab, y: top - board, height: board }),
        band('foam', { ...slab, y: top, height: lining }),
        band('fill', { ...slab, y: foot - deeper, height: deeper, outward: 'down' }),
        band('foam', { ...slab, y: foot, height: lining, outward: 'down' }),
        band(pattern, { ...slab, y: foot + lining, height: board, outward: 'down' }),
        band(pattern, { x, y: top, width: batten, height: foot + lining - top, outward: 'left' }),
        band('foam', {
          x: x + batten,
          y: inner.y,
          width: lining,
          height: inner.height + deeper,
          outward: 'left',
        }),
      ].filter(({ width, height }) => width > 0 && height > 0);
    }
    case 'saved_box': {
      const wall = make.caliper_mm * times * scale;
      return around('card', { edge: Math.max(1, Math.round(thick.edge / wall)), front: 2, back: 2 });
    }
    case 'bought_box': {
      const wall = make.wall_mm * times * scale;
      return around('card', { edge: Math.max(1, Math.round(thick.edge / wall)), front: 1, back: 1 });
    }
    case 'mailer': {
      // A mailer is wider than what lies in it: its edge is a wall, and the rest air.
      const wall = make.wall_mm * times * scale;
      return around('card', { edge: 1, front: 1, back: 1 }).map((part) =>
        part.outward === 'left' ? { ...part, width: wall } : part,
      );
    }
    case 'fixing': {
      const x = pieceLeft - make.beyond_mm * times * scale;
      const slab = { x, width: box.x + box.width - x };
      return [
        band(boardPattern(layer.material), {
          ...slab,
          y: bottom - thick.back,
          height: thick.back,
          outward: 'down',
        }),
      ];
    }
    case 'window_spacer':
      if (make.lies === 'beside')
        // Bars on a board behind the piece, higher than its face.
        return [
          band('foam', {
            width: make.strip_width_mm * scale,
            height: box.height - thick.back,
            outward: 'left',
          }),
          band(boardPattern(layer.material), { y: bottom - thick.back, height: thick.back, outward: 'down' }),
        ];
      return [
        band('foam', {
          x: pieceLeft - (make.lies === 'outside_sheet' ? make.margin_mm : 0) * scale,
          width: make.strip_width_mm * scale,
          height: thick.front,
          turns: make.boards,
        }),
      ];
    case 'cradle':
      // A chock beside the piece, higher than it, on the board behind.
      return [
        band('foam', {
          x: pieceLeft - Math.min(make.chock_width_mm * scale, thick.edge),
          width: Math.min(make.chock_width_mm * scale, thick.edge),
          height: box.height - thick.back,
          outward: 'left',
        }),
        band(boardPattern(layer.material), { y: bottom - thick.back, height: thick.back, outward: 'down' }),
      ];
    case 'rim_strip':
    case 'foam_collar':
      return [band('foam', { width: thick.edge, outward: 'left' })];
    case 'sandwich':
      return around(make.of_board ? 'card' : 'contact', {
        edge: thick.edge > 0 ? 1 : 0,
        front: 1,
        back: 1,
      });
    case 'contact_sheet':
    case 'interleaves':
      return around('contact', { edge: 1, front: 1, back: 1 });
    case 'bundle':
      return bundled(layer, make.deep, band('art', { y: bottom - thick.back, height: thick.back }));
    case 'folio':
      return [
        band(boardPattern(layer.material), { height: thick.front }),
        band(boardPattern(layer.material), { y: bottom - thick.back, height: thick.back, outward: 'down' }),
      ];
    case 'card_pockets':
      return around('card', { edge: 1, front: 1, back: 2 }).map(
        near(make.leg_mm * scale + (pieceLeft - box.x)),
      );
    case 'slip_on_corners':
      return around(boardPattern(layer.material), { edge: 1, front: 1, back: 1 }).map(
        near(make.leg_mm * scale + (pieceLeft - box.x)),
      );
    case 'face_boards': {
      const pattern = boardPattern(layer.material);
      const x = layer.slot === 'outer_boards' ? box.x : pieceLeft - make.proud_mm * scale;
      const slab = { x, width: box.x + box.width - x };
      const boards = [band(pattern, { ...slab, height: make.caliper_mm * times * scale })];
      if (make.behind) {
        const back = layer.parts.find((part) => keyOf(part) === 'back board');
        const other = back ? boardPattern(back.material) : pattern;
        boards.push(band(other, { ...slab, y: bottom - thick.back, height: thick.back, outward: 'down' }));
      }
      return boards;
    }
    case 'stretch_film':
    case 'sealed_bag':
      return around('film', { edge: 1, front: 1, back: 1 });
    case 'name_tag':
      return [
        band('card', { x: pieceLeft + TAG, width: TAG * 2, y: bottom - thick.back, height: thick.back }),
      ];
    case 'wrap': {
      const turn = make.loaded_thickness_mm * times * scale;
      const turns = (thickness: number) => Math.round(thickness / turn);
      return around(wrapPattern(layer.material), {
        edge: turns(thick.edge),
        front: turns(thick.front),
        back: turns(thick.back),
      });
    }
    case 'face_pads': {
      const width = make.pads === 1 ? box.width : make.width_mm * scale;
      return around('foam', { edge: 1, front: 1, back: 1 }).map(near(width));
    }
    case 'edge_pads':
    case 'corner_blocks':
      return around('foam', { edge: 1, front: 1, back: 1 }).map(near(thick.edge));
    case 'skirt':
      return around(wrapPattern(layer.material), { edge: 2, front: 1, back: 1 });
    case 'lining':
      return around('foam', { edge: 1, front: 1, back: 1 });
    case 'padding_sheets':
      return [
        band(/bubble/.test(layer.material) ? 'bubble' : boardPattern(layer.material), {
          y: bottom - thick.back,
          height: thick.back,
          outward: 'down',
          turns: make.count,
        }),
      ];
    case 'card_springs':
      return around('card', { edge: 1, front: 1, back: 1 });
    case 'enclosures':
    case 'outer_paper':
      return around('contact', { edge: 1, front: 1, back: 1 });
    case 'paper_rolls':
    case 'edge_fill':
      return around('fill', { edge: 1, front: 1, back: 1 });
    case 'slotted_box':
    case 'cut_box': {
      // Behind, the wall alone is board; the tab laps only at one side, and the bulge is air.
      const wall = make.caliper_mm * times * scale;
      const walls = around('card', { edge: Math.round(thick.edge / wall), front: 1, back: 1 });
      return walls.map((part) =>
        part.outward === 'down' ? { ...part, y: bottom - thick.back, height: wall } : part,
      );
    }
  }
}

/** How far in a name tag is drawn, and half as long as it is. */
const TAG = 30;

/** The pieces behind the first one, a board before each. */
function bundled(layer: Layer, deep: number, room: Band): Band[] {
  const { envelope, adds } = layer;
  const one = envelope.through_mm - adds.front_mm - adds.back_mm;
  const each = adds.back_mm / Math.max(1, deep - 1);
  const step = room.height / Math.max(1, deep - 1);
  const board = step * Math.max(0, 1 - one / each);
  return Array.from({ length: Math.max(0, deep - 1) }, (_, place) => {
    const y = room.y + place * step;
    return [
      { ...room, y, height: board, pattern: 'card' as const },
      { ...room, y: y + board, height: step - board },
    ];
  }).flat();
}
