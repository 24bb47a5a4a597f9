// What is typed about a shipment, every field present; and how it differs from what is stored.
import type { Choices, Inputs, StepTick } from '@/api/types';
import { noAddress } from '@/countries/address';
import type { Address } from '@/countries/address';

export interface Draft {
  title: string;
  buyer: Address;
  /** The order that it is for, as the shop that sold it knows it. */
  order: typeof ORDER;
  promised: string;
  value: string;
  /** The money that its sums are in, where it left before the studio counted in another. */
  currency: string;
  piece: DraftPiece;
  /** More pieces in the same box, by a name of their own. */
  others: Record<string, DraftOther>;
  /** How several pieces lie together, where that was chosen by hand. */
  together: { order: LaidPiece[] | null; folded_pad: boolean };
  choices: DraftChoices;
  /** Why a Stop was lifted, by its code. */
  lifted: Record<string, string>;
  /** What each was lifted for, as the server noted it. */
  lifted_for: Record<string, string>;
  settled: { guard: string; box: string; weigh: string };
  service: string;
  /** The packed parcel, as it was weighed and measured. */
  parcel: typeof PARCEL;
  /** Prices that somebody quoted, by a name of their own. */
  quotations: Record<string, DraftQuotation>;
  /** Whether it is a gift. */
  gift: boolean;
  /** What goes in besides the piece: more than the house lists, or otherwise, by a name of its own. */
  enclosures: Record<string, DraftEnclosure>;
  /** Steps that were done at the bench, by their keys. */
  packed: Record<string, StepTick>;
  /** What is settled when the parcel leaves. */
  sending: typeof SENDING;
  /** What came of it. */
  after: DraftAfter;
}

/** What came of a parcel. */
export type DraftAfter = typeof AFTER & { claim: typeof CLAIM };

export interface DraftOther {
  title: string;
  value: string;
  piece: DraftPiece;
  choices: typeof OWN_CHOICES;
}

/** A piece where it lies, from the front of the box. */
export interface LaidPiece {
  piece: string;
  faces_front: boolean;
  /** Whether it lies on the board of the one before it. */
  beside: boolean;
}

export interface DraftQuotation {
  from: string;
  what: string;
  price: string;
  covers: string;
  days_from: number | null;
  days_to: number | null;
  until: string;
  route: string;
}

/** A quotation before anything is typed. */
export const emptyQuotation = (): DraftQuotation => ({
  from: '',
  what: '',
  price: '',
  covers: '',
  days_from: null,
  days_to: null,
  until: '',
  route: '',
});

export interface DraftEnclosure {
  kind: string;
  name: string;
  place: string;
  thickness: string;
  grams: number | null;
  hard: boolean | null;
  left_out: boolean;
}

/** Something that goes in, before anything is typed. */
export const emptyEnclosure = (kind = ''): DraftEnclosure => ({
  kind,
  name: '',
  place: '',
  thickness: '',
  grams: null,
  hard: null,
  left_out: false,
});

/** What a certificate says of a piece. */
const FACTS = {
  artist: '',
  year: '',
  medium: '',
  edition: null as number | null,
  edition_of: null as number | null,
  signature: '',
  dated: '',
};

const SENDING = {
  on: '',
  tracking: '',
  no_number: false,
  receipt: '',
  addresses_read: '',
  marked: false,
  protected: '',
  protected_what: '',
  origin: '',
  handed_over: '',
};

const ORDER = { number: '', shop: '', sku: '', paid: '', note: '' };

const CLAIM = { asked: '', sent_on: '', number: '', decided_on: '', paid: '' };

const AFTER = {
  outcome: '',
  on: '',
  damage: '',
  failed: '',
  claim: CLAIM,
  cost: '',
  minutes: null as number | null,
  lesson: '',
};

const PARCEL = { weight: '', across: '', up: '', through: '', as_packed: '' };

const PIECE = {
  construction: '',
  width: '',
  height: '',
  depth: '',
  medium: '',
  paint: 'thin',
  finished: '',
  outline: 'rectangle',
  bearing_points: null as number | null,
  count: null as number | null,
  varnished: false,
  varnished_on: '',
  condition: 'sound',
  notes: '',
  coated_glass: false,
  antistatic: false,
  frame_holds: '',
  frame: 'plain',
  bare_border: '',
  moulding_width: '',
  pane: 'two',
  irreplaceable: false,
  hardware: '',
  certificate: false,
  top: 'plain',
  weight: '',
  limit_g: null as number | null,
  facts: FACTS,
};
export type DraftPiece = typeof PIECE;

/** What the own layers of one piece of several do otherwise. */
const OWN_CHOICES = {
  first_turns: null as number | null,
  cut_through: null as number | null,
  second_turns: null as number | null,
  contact_paper: '',
  face_board: '',
  cushion_wrap: '',
  layers: {} as Record<string, boolean>,
};

/** Another piece before anything of it is typed. */
export const emptyOther = (): DraftOther => otherOf({});

function otherOf(typed: Loose<DraftOther>): DraftOther {
  const choices = filled(OWN_CHOICES, typed.choices);
  return {
    title: typed.title ?? '',
    value: typed.value ?? '',
    piece: pieceOf(typed.piece),
    choices: { ...choices, layers: { ...choices.layers } },
  };
}

function pieceOf(typed: Loose<DraftPiece> | undefined): DraftPiece {
  return { ...filled(PIECE, typed), facts: filled(FACTS, typed?.facts) };
}

const CHOICES = {
  preset: '',
  first_turns: null as number | null,
  cut_through: null as number | null,
  second_turns: null as number | null,
  contact_paper: '',
  pocket_board: '',
  slip_on_corner: '',
  face_board: '',
  cushion_wrap: '',
  pad_foam: '',
  back_foam: '',
  spacer_board: '',
  folio_board: '',
  mailer_board: '',
  outer_board: '',
  name_tag: '',
  fill: '',
  box_board: '',
  box_style: '',
  board_proud: '',
  pocket_leg: '',
  pad_thickness: '',
  pad_area_cm2: null as number | null,
  edge_pad_thickness: '',
  block_thickness: '',
  block_leg: '',
  clearance: '',
  depth_clearance: '',
  second_gap: '',
  glass_pattern: '',
  tube: '',
  carriage: '',
  roll_inner: '',
  bought_box: '',
  travel_case: null as boolean | null,
  case_board: '',
  case_empty: '',
  case_from: '',
  case_kept: null as Choices['case_kept'] | null,
  saved_length: '',
  saved_width: '',
  saved_height: '',
  saved_opens: '',
  saved_cut: '',
  saved_face: '',
  saved_from: '',
  saved_carrier: '',
  second_saved_length: '',
  second_saved_width: '',
  second_saved_height: '',
  second_saved_from: '',
  second_style: '',
  second_board: '',
  second_fill: '',
  back_board: '',
  back_proud: '',
  lining_foam: '',
  lining_thickness: '',
  lining_sides: null as string[] | null,
  roll_paper: '',
  spring_board: '',
  padding_sheet: '',
  label: '',
  outer_paper: '',
  wrapped_across: '',
  wrapped_up: '',
  wrapped_through: '',
  set_grid: null as number[] | null,
  layers: {} as Record<string, boolean>,
  schools: {} as Record<string, string>,
};
export type DraftChoices = typeof CHOICES;

export type Json = string | number | boolean | null | Json[] | { [key: string]: Json };

/** Inputs of which any part may be absent. */
export type Loose<T> = { [Key in keyof T]?: T[Key] extends object ? Loose<T[Key]> : T[Key] | null };

/** Returns what is known, and for what is not what stands in the pattern. */
function filled<Part extends object>(pattern: Part, known: object | undefined): Part {
  const values = (known ?? {}) as Record<string, unknown>;
  const pairs = Object.entries(pattern).map(([key, empty]) => [
    key,
    values[key] ?? (isPlain(empty) ? {} : (empty as unknown)),
  ]);
  return Object.fromEntries(pairs) as Part;
}

function isPlain(value: unknown): boolean {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** Returns a draft of stored inputs; what is absent is empty. */
export function draftOf(inputs: Loose<Inputs>): Draft {
  return {
    title: inputs.title ?? '',
    buyer: filled(noAddress(), inputs.buyer),
    order: { ...filled(ORDER, inputs.order), number: inputs.order?.number ?? inputs.order_number ?? '' },
    promised: inputs.promised ?? '',
    value: inputs.value ?? '',
    currency: inputs.currency ?? '',
    piece: pieceOf(inputs.piece as Loose<DraftPiece> | undefined),
    others: Object.fromEntries(
      Object.entries(inputs.others ?? {}).map(([key, typed]) => [key, otherOf(typed as Loose<DraftOther>)]),
    ),
    together: filled({ order: null, folded_pad: false }, inputs.together),
    choices: copied(filled(CHOICES, inputs.choices)),
    lifted: { ...(inputs.lifted as Record<string, string> | undefined) },
    lifted_for: { ...(inputs.lifted_for as Record<string, string> | undefined) },
    settled: filled({ guard: '', box: '', weigh: '' }, inputs.settled),
    service: inputs.service ?? '',
    parcel: filled(PARCEL, inputs.parcel),
    quotations: Object.fromEntries(
      Object.entries(inputs.quotations ?? {}).map(([key, typed]) => [
        key,
        filled(emptyQuotation(), typed as object),
      ]),
    ),
    gift: inputs.gift ?? false,
    enclosures: Object.fromEntries(
      Object.entries(inputs.enclosures ?? {}).map(([key, typed]) => [
        key,
        filled(emptyEnclosure(), typed as object),
      ]),
    ),
    packed: { ...(inputs.packed as Record<string, StepTick> | undefined) },
    sending: filled(SENDING, inputs.sending),
    after: { ...filled(AFTER, inputs.after), claim: filled(CLAIM, inputs.after?.claim) },
  };
}

/** A draft shares nothing with what it was made of. */
function copied(choices: DraftChoices): DraftChoices {
  return { ...choices, layers: { ...choices.layers }, schools: { ...choices.schools } };
}

/** Lays choices over those of a draft, as the answer of a finding or an alternative asks. */
export function choose(choices: DraftChoices, wanted: Partial<Choices>): void {
  for (const [key, value] of Object.entries(wanted) as [keyof DraftChoices, Json][]) {
    if (value === null) continue;
    if (key === 'layers') choices.layers = { ...choices.layers, ...(value as Record<string, boolean>) };
    else if (key === 'schools')
      choices.schools = { ...choices.schools, ...(value as Record<string, string>) };
    else Object.assign(choices, { [key]: value });
  }
}

/** Starts from a preset: it takes the place of the schools and layers that were chosen; materials and numbers stay. */
export function startFrom({ choices }: Draft, preset: string): void {
  Object.assign(choices, { schools: {}, layers: {}, preset });
}

/** Writes down why a Stop is lifted for things as they are; without a reason it stops again. */
export function lift(draft: Draft, code: string, reason: string | undefined): void {
  Reflect.deleteProperty(draft.lifted_for, code);
  if (reason === undefined) Reflect.deleteProperty(draft.lifted, code);
  else draft.lifted[code] = reason;
}

/** Returns what stands at a path of a draft. */
export function valueAt(draft: Draft, path: string): unknown {
  const inside = (part: unknown, key: string) => (part as Record<string, unknown> | undefined)?.[key];
  return path.split('.').reduce<unknown>(inside, draft);
}

/** Tells whether anything is chosen by hand, but for the preset to start from. */
export function isChosen(choices: DraftChoices): boolean {
  const chosen = withoutEmpty({ ...choices, preset: '' } as unknown as Json) as Record<string, Json>;
  return Object.values(chosen).some((value) => !isObject(value) || Object.keys(value).length > 0);
}

/** Texts that the server keeps even when they are empty. */
const KEPT_EMPTY = new Set(['title', 'name', 'street', 'town', 'postcode', 'country', 'from']);

/** Returns the inputs that a draft stands for: what is empty is left out. */
export function inputsOf(draft: Draft): Inputs {
  return withoutEmpty(draft as unknown as Json) as unknown as Inputs;
}

function withoutEmpty(value: Json): Json {
  if (!isObject(value)) return value;
  const kept = Object.entries(value).filter(
    ([key, part]) => part !== null && (part !== '' || KEPT_EMPTY.has(key)),
  );
  return Object.fromEntries(kept.map(([key, part]) => [key, withoutEmpty(part)]));
}

/** Returns the merge patch (RFC 7396) that makes one value of another; nothing when they are alike. */
export function mergePatch(from: Json, to: Json): Json | undefined {
  if (!isObject(from) || !isObject(to)) return JSON.stringify(from) === JSON.stringify(to) ? undefined : to;
  const patch: Record<string, Json> = {};
  for (const key of new Set([...Object.keys(from), ...Object.keys(to)])) {
    const [before, after] = [from[key], to[key]];
    if (after === undefined) patch[key] = null;
    else {
      const part = before === undefined ? after : mergePatch(before, after);
      if (part !== undefined) patch[key] = part;
    }
  }
  return Object.keys(patch).length > 0 ? patch : undefined;
}

function isObject(value: Json): value is { [key: string]: Json } {
  return value !== null && typeof value === 'object' && !Array.isArray(value);
}

/** Returns a value with a merge patch laid over it. */
export function patched(value: Json, patch: Json): Json {
  if (!isObject(patch)) return patch;
  const result: Record<string, Json> = isObject(value) ? { ...value } : {};
  for (const [key, part] of Object.entries(patch)) {
    if (part === null) Reflect.deleteProperty(result, key);
    else result[key] = patched(result[key] ?? null, part);
  }
  return result;
}

/**
 * Returns what of a patch is left to do beside another of the same value; nothing where one value would become two. A step that both
 * tick alike is ticked.
 */
export function beside(mine: Json, theirs: Json, path = ''): Json | undefined {
  if (JSON.stringify(mine) === JSON.stringify(theirs)) return {};
  if (!isObject(mine) || !isObject(theirs)) return undefined;
  if (/^packed\.[^.]+$/u.test(path) && mine.print !== undefined && mine.print === theirs.print) return {};
  const left: Record<string, Json> = {};
  for (const [key, part] of Object.entries(mine)) {
    const other = theirs[key];
    if (other === undefined) left[key] = part;
    else {
      const rest = beside(part, other, path ? `${path}.${key}` : key);
      if (rest === undefined) return undefined;
      if (!isObject(rest) || Object.keys(rest).length > 0) left[key] = rest;
    }
  }
  return left;
}

/** Returns the paths of every value that a patch touches, as `piece.width`. */
export function pathsOf(patch: Json, prefix = ''): string[] {
  if (!isObject(patch)) return [prefix];
  return Object.entries(patch).flatMap(([key, part]) => pathsOf(part, prefix ? `${prefix}.${key}` : key));
}

/**
 * Returns a patch without the values at some paths; nothing when none is left. What is empty by itself is a change too: were it
 * dropped, it would wait to be sent for ever.
 */
export function withoutPaths(patch: Json, paths: readonly string[], prefix = ''): Json | undefined {
  if (!isObject(patch) || Object.keys(patch).length === 0) return patch;
  const kept: Record<string, Json> = {};
  for (const [key, part] of Object.entries(patch)) {
    const path = prefix ? `${prefix}.${key}` : key;
    const left = paths.includes(path) ? undefined : withoutPaths(part, paths, path);
    if (left !== undefined) kept[key] = left;
  }
  return Object.keys(kept).length > 0 ? kept : undefined;
}
