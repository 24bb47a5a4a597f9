// An open shipment as a pure state machine: what is typed, what of it is stored, and what is on its way. Nothing here
// asks the server, waits or keeps anything; it says what is to be done, and is told what came of it.
import type { Inputs, LengthUnit, Matter, Preview, Shipment, Summary, WorkLine, Worked } from '@/api/types';

import { beside, draftOf, inputsOf, mergePatch, patched, pathsOf, withoutPaths } from './draft';
import type { Json } from './draft';
import type { Part } from './looked';

/** What is shown of a plan. */
export interface Figures {
  worked: Worked;
  summary: Summary | null;
  line: WorkLine;
  /** Everything that is in the way of it. */
  against: Matter[];
}

/** What something that is sent is known by, and what its bare numbers are in. */
export interface Stamp {
  edit: string;
  unit: LengthUnit;
}

/** A change that was sent. Until it is answered it may be stored or not, so it is only ever sent again as it was. */
export interface Flight extends Stamp {
  /** The version that it is based on; 0 makes the shipment. */
  version: number;
  /** What was typed before it. */
  from: Json;
  change: Json;
}

/** An undo or redo that was sent. */
export interface Step {
  edit: string;
  version: number;
  towards: 'undo' | 'redo';
}

/** What a browser keeps of a shipment until all of it is stored. */
export interface Kept {
  /** The version that was typed over: 0 before it is stored, -1 when it was never seen. */
  version: number;
  basis: Json;
  typed: Json;
  texts: Record<string, string>;
  aside?: Json;
  flight?: Flight;
}

export interface Open {
  readonly id: string;
  phase: 'opening' | 'open' | 'missing';
  /** As it stands on the server, as far as is known. */
  shipment?: Shipment;
  version: number;
  /** The inputs that what is typed is a change of. */
  basis: Json;
  typed: Json;
  /** Texts that stand in fields and are no values yet, by field. */
  texts: Record<string, string>;
  /** What the server would not take, by field. */
  errors: Record<string, string>;
  /** What was refused and then taken back: redo brings it again. */
  aside?: Json;
  /** Somebody else's, where it can't be laid under what is typed here. */
  theirs?: Shipment;
  flight?: Flight;
  step?: Step;
  /** Whether flight or step is on its way at this moment. */
  waiting: boolean;
  wants?: 'undo' | 'redo';
  /** What was refused as a whole, for a reason that lies elsewhere: it is not sent again until it changes. */
  stuck?: string;
  /** Why the server can't be reached. */
  away?: string;
  /** It stands as it was seen last in this browser, and the server has not been asked since. */
  recalled?: boolean;
  /** Counts what is typed, so that the answer to an older question is known. */
  edition: number;
  figures?: Figures;
}

export type Event =
  | { is: 'typed'; inputs: Json }
  | { is: 'text'; field: string; text?: string }
  | { is: 'loaded'; shipment: Shipment }
  | { is: 'recalled'; shipment: Shipment; why: string }
  | { is: 'unknown' }
  | { is: 'away'; why: string }
  | { is: 'previewed'; edition: number; preview: Preview; without?: Part[] }
  | { is: 'doubted'; edition: number; fields: Record<string, string> }
  | { is: 'due'; what: 'preview' }
  | { is: 'due'; what: 'save' | 'retry'; stamp: Stamp }
  | { is: 'stored'; edit: string; shipment: Shipment }
  | { is: 'refused'; edit: string; fields: Record<string, string> }
  | { is: 'stale'; edit: string; current: Shipment }
  | { is: 'ended'; edit: string }
  | { is: 'lost'; edit: string; why: string }
  | { is: 'wanted'; towards: 'undo' | 'redo'; stamp: Stamp }
  | { is: 'settled'; whose: 'mine' | 'theirs' }
  | { is: 'seen'; shipment: Shipment };

export type Effect =
  | { do: 'load' }
  | { do: 'preview'; edition: number; inputs: Json }
  | { do: 'send'; flight: Flight }
  | { do: 'step'; step: Step }
  | { do: 'wake'; what: 'preview' | 'save' | 'retry'; after: number }
  | { do: 'keep'; kept: Kept | undefined };

const PREVIEW_AFTER_MS = 90;
const SAVE_AFTER_MS = 600;
const TRY_AGAIN_AFTER_MS = 2500;

export const NOTHING_TYPED = asJson(inputsOf(draftOf({})));
const NEVER_SEEN = -1;

function asJson(inputs: Inputs): Json {
  return JSON.parse(JSON.stringify(inputs)) as Json;
}

const inputsAt = (shipment: Shipment): Json => asJson(inputsOf(draftOf(shipment.inputs)));

/** Begins with what was kept, or with nothing; a shipment that is new here is not asked for. */
export function begin(id: string, isNew: boolean, kept?: Kept): [Open, Effect[]] {
  const state: Open = {
    id,
    phase: isNew && !kept ? 'open' : 'opening',
    version: kept?.version ?? (isNew ? 0 : NEVER_SEEN),
    basis: kept?.basis ?? NOTHING_TYPED,
    typed: kept?.typed ?? NOTHING_TYPED,
    texts: { ...kept?.texts },
    errors: {},
    aside: kept?.aside,
    flight: kept?.flight,
    waiting: false,
    edition: 0,
  };
  if (state.phase === 'open') return [state, []];
  if (!state.flight) return [state, [{ do: 'load' }]];
  // Whether it was stored comes before how things stand.
  state.waiting = true;
  return [state, [{ do: 'send', flight: state.flight }]];
}

/** What is typed and not stored. */
export function changeOf({ basis, typed }: Open): Json | undefined {
  return mergePatch(basis, typed);
}

/** What of it may be sent. */
function sendable(state: Open): Json | undefined {
  const change = changeOf(state);
  const left = change && withoutPaths(change, Object.keys(state.errors));
  return left !== undefined && JSON.stringify(left) !== state.stuck ? left : undefined;
}

/** Tells whether all that is typed is on its way: what is answered shows what follows from it. */
function isUnderWay({ flight, waiting, typed }: Open): boolean {
  return (
    flight !== undefined && waiting && mergePatch(patched(flight.from, flight.change), typed) === undefined
  );
}

/** Tells whether the page holds anything that the server may not have. */
export function isPending(state: Open): boolean {
  return (
    changeOf(state) !== undefined ||
    state.flight !== undefined ||
    state.aside !== undefined ||
    Object.keys(state.texts).length > 0
  );
}

/** What of it a browser keeps. */
export function keptOf(state: Open): Kept | undefined {
  if (!isPending(state)) return undefined;
  const { version, basis, typed, texts, aside, flight } = state;
  return { version, basis, typed, texts, aside, flight };
}

/** Takes a shipment over as it stands, and lays what else was typed on top. */
function adopt(state: Open, shipment: Shipment, over?: Json): void {
  state.phase = 'open';
  state.shipment = shipment;
  state.version = shipment.version;
  state.basis = inputsAt(shipment);
  state.typed = over === undefined ? state.basis : patched(state.basis, over);
  state.theirs = undefined;
  state.stuck = undefined;
  state.edition += 1;
  if (over === undefined) state.errors = {};
  state.figures = figuresOf(shipment);
}

function figuresOf(from: Shipment | Preview): Figures {
  // What this browser kept from before matters were told has none.
  const against = (from as Partial<Pick<Shipment, 'against'>>).against ?? [];
  return { worked: from.worked, summary: from.summary ?? null, line: from.line, against };
}

/** How layers stand is pressed on, so it stays as it was last told where a preview leaves it out. */
function filledFrom(before: Figures | undefined, now: Figures, without: Part[]): Figures {
  const [was, is] = [before?.worked.plan, now.worked.plan];
  if (!was || !is || !without.includes('slots')) return now;
  return { ...now, worked: { ...now.worked, plan: { ...is, slots: was.slots } } };
}

/**
 * Somebody else's stands there: where it is what was typed here there is nothing to settle, and where it touches other fields and
 * other ticks both stand.
 */
function clash(state: Open, theirs: Shipment): void {
  const mine = changeOf(state);
  const stands = inputsAt(theirs);
  if (mine === undefined || mergePatch(stands, patched(stands, mine)) === undefined) {
    adopt(state, theirs);
    return;
  }
  const since = mergePatch(state.basis, stands);
  const left = beside(mine, since ?? {});
  if (left === undefined) {
    state.phase = 'open';
    state.theirs = theirs;
    return;
  }
  const { errors } = state;
  adopt(state, theirs, left);
  state.errors = errors;
}

/** Tells whether it left: nothing that is typed of it then changes its plan. */
function hasLeft({ shipment }: Open): boolean {
  return Boolean(shipment?.left);
}

/** Says what is to be done once something has changed what is typed. */
function toFollow(state: Open): Effect[] {
  if (changeOf(state) === undefined) return [];
  if (hasLeft(state)) return [{ do: 'wake', what: 'save', after: SAVE_AFTER_MS }];
  return [
    { do: 'wake', what: 'preview', after: PREVIEW_AFTER_MS },
    { do: 'wake', what: 'save', after: SAVE_AFTER_MS },
  ];
}

/** Tells whether it can be changed: on the bench, or on its way, where only what came of it is. */
export function isAtWork({ shipment }: Open): boolean {
  return !shipment || shipment.place === 'bench' || shipment.place === 'sent';
}

/** Sends what may be sent; one thing is on its way at a time. */
function send(state: Open, stamp: Stamp): Effect[] {
  if (state.phase !== 'open' || state.waiting || state.theirs) return [];
  if (!isAtWork(state)) return [];
  if (state.flight ?? state.step) {
    state.waiting = true;
    if (state.flight) return [{ do: 'send', flight: state.flight }];
    return state.step ? [{ do: 'step', step: state.step }] : [];
  }
  const change = sendable(state);
  if (change !== undefined) {
    const version = Math.max(state.version, 0);
    state.flight = { ...stamp, version, from: state.basis, change };
    state.waiting = true;
    return [{ do: 'send', flight: state.flight }];
  }
  return state.wants ? takeStep(state, stamp.edit) : [];
}

/** Undoes or redoes what is stored; a value that was refused never was, so taking it back is the undo. */
function takeStep(state: Open, edit: string): Effect[] {
  const towards = state.wants ?? 'undo';
  state.wants = undefined;
  const refused = changeOf(state);
  if (towards === 'undo' && refused !== undefined) {
    state.aside = state.aside === undefined ? refused : patched(state.aside, refused);
    state.typed = state.basis;
    state.errors = {};
    state.stuck = undefined;
    state.edition += 1;
    if (state.shipment) state.figures = figuresOf(state.shipment);
    return [];
  }
  if (towards === 'redo' && state.aside !== undefined) {
    state.typed = patched(state.typed, state.aside);
    state.aside = undefined;
    state.edition += 1;
    return toFollow(state);
  }
  const now = state.shipment;
  if (!now || refused !== undefined || !(towards === 'undo' ? now.can_undo : now.can_redo)) return [];
  state.step = { edit, version: now.version, towards };
  state.waiting = true;
  return [{ do: 'step', step: state.step }];
}

/** What was sent is stored: what was typed since stays, over whatever else stands there by now. */
function landed(state: Open, shipment: Shipment): Effect[] {
  const { flight, step } = state;
  state.flight = undefined;
  state.step = undefined;
  state.waiting = false;
  state.away = undefined;
  state.recalled = undefined;
  state.stuck = undefined;
  if (!flight) {
    const over = step && changeOf(state);
    adopt(state, shipment, over);
    return over === undefined ? [] : toFollow(state);
  }
  const reached = patched(flight.from, flight.change);
  const since = mergePatch(reached, state.typed);
  if (shipment.version !== flight.version + 1) {
    state.basis = reached;
    if (since === undefined) adopt(state, shipment);
    else clash(state, shipment);
    return state.theirs ? [] : toFollow(state);
  }
  state.phase = 'open';
  state.shipment = shipment;
  state.version = shipment.version;
  state.basis = reached;
  note(state, inputsAt(shipment));
  if (changeOf(state) === undefined) {
    state.errors = {};
    state.figures = figuresOf(shipment);
    state.edition += 1;
  }
  return [{ do: 'wake', what: 'save', after: state.wants ? 0 : SAVE_AFTER_MS }];
}

/** Takes over what the server notes by itself: what each Stop was lifted for, and which plan the parcel was packed by. */
function note(state: Open, stands: Json): void {
  const inputs = stands as Record<string, Json>;
  const packed = (inputs.parcel as Record<string, Json> | undefined)?.as_packed ?? null;
  const noted = (known: Json) => {
    const over = patched(known, { parcel: { as_packed: packed } }) as Record<string, Json>;
    // Nothing was weighed where it was not.
    if (packed === null && (known as Record<string, Json>).parcel === undefined)
      Reflect.deleteProperty(over, 'parcel');
    return { ...over, lifted_for: inputs.lifted_for ?? {} };
  };
  state.basis = noted(state.basis);
  state.typed = noted(state.typed);
}

/** The server answered about something; nothing that is answered twice counts twice. */
const isAbout = (state: Open, edit: string) => (state.flight ?? state.step)?.edit === edit;

/** Whether how it stands is still asked for. */
const isAsked = ({ phase, recalled }: Open) => phase === 'opening' || recalled === true;

function gaveUp(state: Open): void {
  state.flight = undefined;
  state.step = undefined;
  state.waiting = false;
  state.away = undefined;
}

function on(state: Open, event: Event): Effect[] {
  switch (event.is) {
    case 'typed': {
      const touched = pathsOf(mergePatch(state.typed, event.inputs) ?? {});
      if (touched.length === 0 || (touched.length === 1 && touched[0] === '')) return [];
      state.typed = event.inputs;
      state.edition += 1;
      state.wants = undefined;
      state.aside = undefined;
      const others = Object.entries(state.errors).filter(([field]) => !touched.includes(field));
      state.errors = Object.fromEntries(others);
      if (changeOf(state) === undefined) {
        state.errors = {};
        if (state.shipment) state.figures = figuresOf(state.shipment);
      }
      return toFollow(state);
    }
    case 'text':
      if (event.text === undefined) Reflect.deleteProperty(state.texts, event.field);
      else state.texts[event.field] = event.text;
      return [];
    case 'loaded': {
      if (!isAsked(state) || state.flight) return [];
      state.away = undefined;
      state.recalled = undefined;
      const { shipment } = event;
      const change = changeOf(state);
      if (change === undefined || state.version === NEVER_SEEN) adopt(state, shipment, change);
      else if (shipment.version === state.version) {
        const { basis, typed } = state;
        adopt(state, shipment, change);
        Object.assign(state, { basis, typed });
      } else clash(state, shipment);
      return toFollow(state);
    }
    case 'recalled': {
      if (state.phase !== 'opening') return [];
      const { basis, typed, version } = state;
      adopt(state, event.shipment, changeOf(state));
      // What was kept here is a change of what it was typed over, whatever was seen since.
      if (version !== NEVER_SEEN) Object.assign(state, { basis, typed, version });
      state.away = event.why;
      state.recalled = true;
      return [{ do: 'wake', what: 'retry', after: TRY_AGAIN_AFTER_MS }];
    }
    case 'unknown':
      if (!isAsked(state)) return [];
      state.away = undefined;
      state.recalled = undefined;
      state.phase = state.version === 0 ? 'open' : 'missing';
      return toFollow(state);
    case 'away':
      state.away = event.why;
      return [{ do: 'wake', what: 'retry', after: TRY_AGAIN_AFTER_MS }];
    case 'previewed':
      if (event.edition !== state.edition || changeOf(state) === undefined) return [];
      state.figures = filledFrom(state.figures, figuresOf(event.preview), event.without ?? []);
      if (Object.keys(state.errors).length === 0) return [];
      state.errors = {};
      return toFollow(state).slice(1);
    case 'doubted':
      if (event.edition === state.edition && changeOf(state) !== undefined) state.errors = event.fields;
      return [];
    case 'due':
      if (event.what === 'preview') {
        if (state.phase !== 'open' || hasLeft(state) || changeOf(state) === undefined || isUnderWay(state))
          return [];
        return [{ do: 'preview', edition: state.edition, inputs: state.typed }];
      }
      if (state.phase === 'opening' && event.what === 'retry' && !state.waiting) {
        if (!state.flight) return [{ do: 'load' }];
        state.waiting = true;
        return [{ do: 'send', flight: state.flight }];
      }
      {
        const sent = send(state, event.stamp);
        const idle = sent.length === 0 && !state.waiting && !state.flight;
        return state.recalled && idle && event.what === 'retry' ? [{ do: 'load' }] : sent;
      }
    case 'stored': {
      if (!isAbout(state, event.edit)) return [];
      return landed(state, event.shipment);
    }
    case 'refused': {
      if (!isAbout(state, event.edit)) return [];
      const sent = state.flight?.change;
      gaveUp(state);
      if (state.phase === 'opening') return [{ do: 'load' }];
      state.wants = undefined;
      state.errors = { ...state.errors, ...event.fields };
      const left = sendable(state);
      if (left === undefined) return [];
      if (sent !== undefined && pathsOf(sent).some((path) => path in event.fields))
        return [{ do: 'wake', what: 'save', after: 0 }];
      state.stuck = JSON.stringify(left);
      return [];
    }
    case 'stale': {
      if (!isAbout(state, event.edit)) return [];
      gaveUp(state);
      state.wants = undefined;
      clash(state, event.current);
      return state.theirs ? [] : toFollow(state);
    }
    case 'ended':
      if (!isAbout(state, event.edit)) return [];
      gaveUp(state);
      return state.phase === 'opening' ? [{ do: 'load' }] : [];
    case 'lost':
      if (!isAbout(state, event.edit)) return [];
      state.waiting = false;
      state.wants = undefined;
      state.away = event.why;
      return [{ do: 'wake', what: 'retry', after: TRY_AGAIN_AFTER_MS }];
    case 'wanted':
      if (state.phase !== 'open' || state.theirs || state.step) return [];
      state.wants = event.towards;
      return send(state, event.stamp);
    case 'settled': {
      const { theirs } = state;
      if (!theirs) return [];
      adopt(state, theirs, event.whose === 'mine' ? changeOf(state) : undefined);
      return toFollow(state);
    }
    case 'seen': {
      const idle = state.phase === 'open' && !state.waiting && !state.flight && !state.step && !state.theirs;
      if (!idle) return [];
      const moved = state.shipment?.place !== event.shipment.place;
      if (changeOf(state) === undefined) {
        if (moved || state.version !== event.shipment.version) adopt(state, event.shipment);
        // What its carrier said changes nothing that is typed.
        else state.shipment = event.shipment;
        return [];
      }
      if (state.version !== event.shipment.version) return [];
      state.shipment = event.shipment;
      return toFollow(state);
    }
  }
}

/** Returns what an event makes of a shipment, and what is to be done. */
export function step(before: Open, event: Event): [Open, Effect[]] {
  const state: Open = { ...before, texts: { ...before.texts } };
  const effects = on(state, event);
  const [was, is] = [keptOf(before), keptOf(state)];
  if (JSON.stringify(was) !== JSON.stringify(is)) effects.unshift({ do: 'keep', kept: is });
  return [state, effects];
}
