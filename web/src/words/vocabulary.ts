// The words for what the core names by a key.
import type { CartonStyle, Fate } from '@/api/types';

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
  pierced: 'pierced',
  stacked: 'stacked',
  damp: 'damp',
} as const;

export const OUTLINES = [
  { value: 'rectangle', text: 'Rectangle' },
  { value: 'oval', text: 'Oval' },
  { value: 'arched', text: 'Arched top' },
  { value: 'round', text: 'Round' },
  { value: 'polygon', text: 'Polygon' },
  { value: 'irregular', text: 'Irregular' },
] as const;

export const FRAME_HOLDS = [
  { value: 'panel', text: 'Panel or board' },
  { value: 'stretched_canvas', text: 'Stretched canvas' },
  { value: 'paper', text: 'Paper' },
] as const;

export const FRAMES = [
  { value: 'plain', text: 'Plain' },
  { value: 'delicate', text: 'Gilded, painted or waxed' },
  { value: 'ornate', text: 'Ornate, raised corners' },
  { value: 'old', text: 'Old or loose' },
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

/** A box by its style. */
export const BOX_NAMES: Record<CartonStyle, string> = {
  slotted_edge: 'Edge-opening box',
  slotted_face: 'Face-opening box',
  tray_and_lid: 'Tray and lid',
  tray_and_tray: 'Two-tray box',
  slit_tray: 'Foam-board tray and lid',
  folder: 'Folder',
  folder_lapped: 'Lapped folder',
  telescope: 'Telescope box',
};
export const BOX_STYLES = Object.entries(BOX_NAMES).map(([value, text]) => ({ value, text }));

/** What of a carton that the studio has is cut where it is larger than what goes in. */
export const SAVED_FACES = [
  { value: 'as_it_was', text: 'As it was' },
  { value: 'inside_out', text: 'Turned inside out' },
];
/** On which side a carton opens that was made for something else; the usual one first. */
export const OPENS = [
  { value: 'face', text: 'On its large side' },
  { value: 'edge_long', text: 'On a long narrow side' },
  { value: 'edge_short', text: 'On a short narrow side' },
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
  telescope: 'both ends, both joints, and twice around where they meet',
};
