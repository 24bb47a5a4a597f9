// Every field of a shipment, by the path that the server names it by: what it is called, how it is typed, and which
// codes it may hold. Forms, conflicts and the tally take their words from here; what stands for an empty field comes
// from the core, with the studio.
import {
  BOX_STYLES,
  OPENS,
  SAVED_CUTS,
  SAVED_FACES,
  CONDITIONS,
  FRAME_HOLDS,
  FRAMES,
  CONSTRUCTIONS,
  MEDIA,
  OUTCOMES,
  OUTLINES,
  PAINTS,
  PANES,
  PROTECTED,
  TOPS,
} from '@/words/vocabulary';
import { dayAndYear } from '@/units/show';

import type { StopName } from './stops';

export type FieldKind = 'text' | 'length' | 'number' | 'day' | 'tick' | 'choice';

export interface Field {
  label: string;
  kind: FieldKind;
  /** What it may hold, and what each is called. */
  codes?: readonly { value: string; text: string }[];
  /** What it is called in a sentence, where that is not its label in small letters. */
  inSentence?: string;
  /** The house rule that holds while nothing is typed. */
  rule?: string;
}

const text = (label: string): Field => ({ label, kind: 'text' });
const day = (label: string): Field => ({ label, kind: 'day' });
const tick = (label: string): Field => ({ label, kind: 'tick' });
const number = (label: string): Field => ({ label, kind: 'number' });
const choice = (label: string, codes: Field['codes'] = undefined): Field => ({
  label,
  kind: 'choice',
  codes,
});
const length = (label: string, rule?: string): Field => ({ label, kind: 'length', rule });

export const FIELDS = {
  title: text('Title of the piece'),
  'order.number': { ...text('Order number'), inSentence: 'the order number' },
  'order.shop': { ...text('Shop'), inSentence: 'the shop' },
  'order.sku': text('Product code (SKU)'),
  'order.paid': { ...text('Paid for carriage'), inSentence: 'what the buyer paid for carriage' },
  'order.note': text('Buyer’s note'),
  promised: day('Promised for'),
  value: { ...text('Worth'), inSentence: 'what it is worth' },
  service: choice('Service'),
  gift: { ...tick('It is a gift'), inSentence: 'whether it is a gift' },
  'buyer.name': text('Buyer'),
  'buyer.company': text('Company'),
  'buyer.street': text('Street'),
  'buyer.neighbourhood': text('Neighbourhood'),
  'buyer.town': text('Town'),
  'buyer.region': text('Region'),
  'buyer.postcode': text('Postcode'),
  'buyer.country': choice('Country'),
  currency: text('Money of its sums'),
  'piece.construction': { ...choice('Type of piece', CONSTRUCTIONS), inSentence: 'type of piece' },
  'piece.width': { ...length('Width'), inSentence: 'the width' },
  'piece.height': { ...length('Height'), inSentence: 'the height' },
  'piece.depth': { ...length('Depth'), inSentence: 'the depth' },
  'piece.medium': { ...choice('Medium', MEDIA), inSentence: 'what it is made in' },
  'piece.paint': choice('Paint', PAINTS),
  'piece.finished': day('Finished on'),
  'piece.condition': choice('Condition', CONDITIONS),
  'piece.varnished': tick('Varnished'),
  'piece.varnished_on': day('Varnished on'),
  'piece.pane': choice('Pane', PANES),
  'piece.coated_glass': tick('The glass is coated'),
  'piece.antistatic': tick('The acrylic is antistatic'),
  'piece.frame_holds': choice('In the frame', FRAME_HOLDS),
  'piece.frame': choice('The frame is', FRAMES),
  'piece.bare_border': length('Bare border'),
  'piece.moulding_width': length('Moulding width'),
  'piece.count': number('How many'),
  'piece.outline': choice('Outline', OUTLINES),
  'piece.bearing_points': number('Bearing points'),
  'piece.weight': text('Weighed'),
  'piece.limit_g': number('Shock it takes'),
  'piece.hardware': length('Hardware stands off'),
  'piece.top': choice('Top edge', TOPS),
  'piece.certificate': tick('A certificate goes with it'),
  'piece.facts.artist': text('Artist'),
  'piece.facts.year': text('Year'),
  'piece.facts.medium': text('Medium, as the certificate words it'),
  'piece.facts.edition': number('Number in the edition'),
  'piece.facts.edition_of': number('Of how many'),
  'piece.facts.signature': text('Signed'),
  'piece.facts.dated': day('Certificate dated'),
  'piece.irreplaceable': tick('It can’t be replaced or made again'),
  'piece.notes': text('Condition notes'),
  'parcel.weight': { ...text('Weighs'), inSentence: 'what the parcel weighs' },
  'parcel.across': length('Across, outside'),
  'parcel.up': length('Up, outside'),
  'parcel.through': length('Through, outside'),
  'sending.on': { ...day('Leaves on'), inSentence: 'the day it leaves' },
  'sending.tracking': text('Tracking number'),
  'sending.no_number': { ...tick('No number'), inSentence: 'whether the carrier gave a number' },
  'sending.receipt': text('Number on the receipt'),
  'sending.marked': { ...tick('Label and marks are on it'), inSentence: 'whether label and marks are on it' },
  'sending.protected': choice('Protected materials', PROTECTED),
  'sending.protected_what': text('Which protected materials'),
  'sending.origin': choice('Made in'),
  'sending.handed_over': { ...day('Handed over on'), inSentence: 'the day it was handed over' },
  'after.outcome': { ...choice('Outcome', OUTCOMES), inSentence: 'outcome' },
  'after.on': { ...day('On'), inSentence: 'the day of that' },
  'after.damage': text('Damage'),
  'after.failed': choice('The layer that gave way'),
  'after.cost': text('The carrier’s bill'),
  'after.minutes': number('Minutes it took'),
  'after.lesson': text('Lesson for next time'),
  'after.claim.asked': text('Asked for'),
  'after.claim.sent_on': day('Sent to the carrier on'),
  'after.claim.number': text('The carrier’s number for it'),
  'after.claim.decided_on': day('Decided on'),
  'after.claim.paid': text('Paid by the carrier'),
  'choices.preset': choice('Preset to start from'),
  'choices.first_turns': number('Turns of the first wrap'),
  'choices.second_turns': number('Turns of the second wrap'),
  'choices.contact_paper': choice('Sheet against the art'),
  'choices.pocket_board': choice('Board of the corners'),
  'choices.slip_on_corner': choice('Slip-on corner'),
  'choices.face_board': choice('Face board'),
  'choices.cushion_wrap': choice('Cushion wrap'),
  'choices.pad_foam': choice('Foam of the pads'),
  'choices.back_foam': choice('Foam behind the canvas'),
  'choices.spacer_board': choice('Board of the window spacer'),
  'choices.folio_board': choice('Board of the folio'),
  'choices.mailer_board': choice('Boards in the mailer'),
  'choices.outer_board': choice('Boards outside the cushion'),
  'choices.name_tag': choice('Name tag'),
  'choices.fill': choice('Fill'),
  'choices.box_board': choice('Box board'),
  'choices.box_style': choice('How the box is made', BOX_STYLES),
  'choices.bought_box': choice('Bought box'),
  'choices.travel_case': tick('A travel case in place of the box'),
  'choices.case_board': choice('Board of the case'),
  'choices.case_empty': { ...text('Empty weight'), inSentence: 'what the empty case weighs' },
  'choices.case_from': text('Which travel case of the shelf'),
  'choices.case_kept': text('Measures of the travel case'),
  'choices.saved_length': length('Long, inside'),
  'choices.saved_width': length('Wide'),
  'choices.saved_height': length('Deep'),
  'choices.saved_opens': choice('It opens', OPENS),
  'choices.saved_cut': choice('Where it is larger, cut', SAVED_CUTS),
  'choices.saved_face': choice('Its outside', SAVED_FACES),
  'choices.cut_through': number('Scores of the box cut through'),
  'choices.saved_from': text('Which carton of the pile'),
  'choices.saved_carrier': text('Owner of the carton'),
  'choices.second_saved_length': length('Long, inside'),
  'choices.second_saved_width': length('Wide'),
  'choices.second_saved_height': length('Deep'),
  'choices.second_saved_from': text('Which carton of the pile is the second'),
  'choices.second_style': choice('How the second box is made', BOX_STYLES),
  'choices.second_board': choice('Board of the second box'),
  'choices.second_fill': choice('Fill between the boxes'),
  'choices.back_board': choice('Board behind'),
  'choices.lining_foam': choice('Foam of the lining'),
  'choices.lining_sides': text('Sides with a lining'),
  'choices.roll_paper': choice('Paper to roll'),
  'choices.spring_board': choice('Board of the springs'),
  'choices.padding_sheet': choice('Padding sheets'),
  'choices.label': choice('Label'),
  'choices.outer_paper': choice('Paper around the box'),
  'choices.back_proud': length('Proud margin behind'),
  'choices.lining_thickness': length('Thickness', 'lining_thickness_mm'),
  'choices.wrapped_across': length('Across'),
  'choices.wrapped_up': length('Up'),
  'choices.wrapped_through': length('Through'),
  'choices.board_proud': length('Proud margin', 'board_proud_mm'),
  'choices.pocket_leg': length('Leg'),
  'choices.pad_thickness': length('Thickness', 'pad_thickness_mm'),
  'choices.pad_area_cm2': number('Area on one side, cm²'),
  'choices.edge_pad_thickness': length('Thickness', 'edge_pad_thickness_mm'),
  'choices.block_thickness': length('Thickness', 'block_thickness_mm'),
  'choices.block_leg': length('Leg'),
  'choices.clearance': length('Room at each edge', 'clearance_mm'),
  'choices.depth_clearance': length('Room behind', 'depth_clearance_mm'),
  'choices.second_gap': length('Gap on each side', 'second_gap_mm'),
  'choices.glass_pattern': choice('Tape on the glass'),
  'choices.tube': choice('Tube'),
  'choices.carriage': choice('How it travels'),
  'choices.roll_inner': length('Inner diameter'),
  'choices.set_grid': text('How they lie, across and up'),
} as const satisfies Record<string, Field>;

export type FieldPath = keyof typeof FIELDS;

const known: Record<string, Field> = FIELDS;

/** Fields whose label says what they are only beside their layer, and the one that is typed as three. */
const OF_LAYER: Record<string, string> = {
  size: 'the size',
  'choices.pocket_leg': 'leg of the corner pockets',
  'choices.pad_thickness': 'thickness of the face pads',
  'choices.pad_area_cm2': 'area of the face pads',
  'choices.edge_pad_thickness': 'thickness of the edge pads',
  'choices.block_thickness': 'thickness of the corner blocks',
  'choices.block_leg': 'leg of the corner blocks',
  'choices.clearance': 'room at each edge in the box',
  'choices.depth_clearance': 'room behind in the box',
  'choices.second_gap': 'gap between the boxes',
  'choices.roll_inner': 'inner diameter of the roll',
  'choices.lining_thickness': 'thickness of the lining',
  'choices.saved_length': 'the length of the carton you have',
  'choices.saved_width': 'the width of the carton you have',
  'choices.saved_height': 'the depth of the carton you have',
  'choices.second_saved_length': 'the length of the second carton',
  'choices.second_saved_width': 'the width of the second carton',
  'choices.second_saved_height': 'the depth of the second carton',
  'choices.wrapped_across': 'the wrapped piece, across',
  'choices.wrapped_up': 'the wrapped piece, up',
  'choices.wrapped_through': 'the wrapped piece, through',
};

/** A field of another piece is called as the first one's is. */
const OF_OTHER = /^others\.[^.]+\./;

/** The stop at which a field is typed. */
export function stopOfField(path: string): StopName {
  if (OF_OTHER.test(path)) return stopOfField(path.replace(OF_OTHER, ''));
  if (path.startsWith('together')) return 'guard';
  if (path === 'service') return 'price';
  if (path.startsWith('quotations')) return 'price';
  if (path.startsWith('packed')) return 'pack';
  if (path.startsWith('sending')) return 'send';
  if (path.startsWith('after')) return 'after';
  if (path.startsWith('parcel.') || path === 'settled.weigh') return 'weigh';
  if (/^choices\.(box|bought_box|saved|second_saved|second_style|second_board|wrapped)/.test(path))
    return 'box';
  return path.startsWith('choices.') ? 'guard' : 'measure';
}

/** What a field is called in a sentence; a layer, a reason or a path that is new here is called by its last word. */
export function fieldInSentence(path: string): string {
  if (OF_OTHER.test(path)) return `${fieldInSentence(path.replace(OF_OTHER, ''))} of another piece`;
  if (path.startsWith('together')) return 'how the pieces lie';
  const field = known[path];
  const other = OF_LAYER[path];
  if (other) return other;
  if (!field) return (path.split('.').pop() ?? path).replaceAll('_', ' ');
  return field.inSentence ?? field.label.charAt(0).toLowerCase() + field.label.slice(1);
}

/** What a field holds, as people say it. */
export function valueInSentence(path: string, value: unknown): string {
  if (value === undefined || value === null || value === '') return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value)) return value.join(' × ');
  const written = typeof value === 'object' ? JSON.stringify(value) : String(value as string | number);
  const field = known[path];
  if (field?.kind === 'day') return dayAndYear(written);
  return field?.codes?.find((code) => code.value === written)?.text ?? written;
}
