// The state machine of a shipment against a server, a network that loses and delays, two windows and a hand that slips.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

import type { Shipment } from '@/api/types';

import { patched, pathsOf } from './draft';
import type { Json } from './draft';
import { drive } from './driver';
import type { Driver, Ports, Reply } from './driver';
import { keeping } from './kept';
import type { Box } from './kept';
import { changeOf, NOTHING_TYPED } from './machine';
import type { Open } from './machine';

const ID = 'shipment';
const TYPED = ['title', 'buyer.name', 'piece.width'] as const;
/** What a tablet ticks at the bench. */
const TICKS = ['packed.bench.at', 'packed.wrap.at'] as const;
const FIELDS = [...TYPED, ...TICKS] as const;
type Field = (typeof FIELDS)[number];

function at(inputs: Json | undefined, field: Field): Json | undefined {
  return field
    .split('.')
    .reduce<Json | undefined>((part, key) => (part as Record<string, Json> | undefined)?.[key], inputs);
}

function patchAt(field: Field, text: string): Json {
  return field.split('.').reduceRight<Json>((inner, key) => ({ [key]: inner }), text);
}

/** What the server would not take. */
const isRefused = (text: Json | undefined) => String(text ?? '').includes('!');

/** A server as the API describes it: versions, edits that are known by their id, undo and redo. */
class Server {
  private states: Json[] = [];
  private standing = -1;
  private version = 0;
  private readonly edits = new Set<string>();
  /** The fields that each version changed. */
  private readonly changes = new Map<number, Field[]>();
  /** Texts that were written over by somebody who had not seen them. */
  readonly unseen: string[] = [];
  /** Every text that was ever stored. */
  readonly ever = new Set<string>();

  private view(): Shipment {
    return {
      id: ID,
      version: this.version,
      inputs: this.states[this.standing],
      place: 'bench',
      can_undo: this.standing > 0,
      can_redo: this.standing < this.states.length - 1,
      worked: {},
      line: {},
    } as unknown as Shipment;
  }

  load(): Reply {
    return this.version === 0 ? { is: 'unknown' } : { is: 'shipment', shipment: this.view() };
  }

  change(edit: string, version: number, from: Json, change: Json): Reply {
    if (this.edits.has(edit)) return { is: 'shipment', shipment: this.view() };
    const basis = this.states[this.standing] ?? from;
    if (version > this.version || (version === 0 && this.version > 0))
      return { is: 'stale', current: this.view() };
    const since = [...this.changes].filter(([made]) => made > version).flatMap(([, fields]) => fields);
    const isTwo = (field: Field) =>
      at(change, field) !== undefined && at(change, field) !== at(basis, field) && since.includes(field);
    if (FIELDS.some(isTwo)) return { is: 'stale', current: this.view() };
    const inputs = patched(basis, change);
    const refused = FIELDS.filter(
      (field) => isRefused(at(inputs, field)) && at(inputs, field) !== at(basis, field),
    );
    if (refused.length > 0)
      return { is: 'refused', fields: Object.fromEntries(refused.map((field) => [field, 'no'])) };
    for (const field of FIELDS)
      if (
        at(change, field) !== undefined &&
        at(change, field) !== at(basis, field) &&
        at(basis, field) !== at(from, field)
      )
        this.unseen.push(`${field} = ${String(at(basis, field))}`);
    // What stands there already makes no version.
    if (this.version > 0 && JSON.stringify(inputs) === JSON.stringify(basis))
      return { is: 'shipment', shipment: this.view() };
    this.states = [...this.states.slice(0, this.standing + 1), inputs];
    return this.moved(edit, this.standing + 1);
  }

  step(edit: string, version: number, towards: 'undo' | 'redo'): Reply {
    if (this.edits.has(edit)) return { is: 'shipment', shipment: this.view() };
    if (version !== this.version) return { is: 'stale', current: this.view() };
    const to = this.standing + (towards === 'undo' ? -1 : 1);
    return to < 0 || to >= this.states.length ? { is: 'ended' } : this.moved(edit, to);
  }

  private moved(edit: string, to: number): Reply {
    this.edits.add(edit);
    const [before, after] = [this.states[this.standing], this.states[to]];
    this.standing = to;
    this.version += 1;
    this.changes.set(
      this.version,
      FIELDS.filter((field) => at(before, field) !== at(after, field)),
    );
    for (const field of FIELDS) this.ever.add(`${field}=${String(at(this.states[to], field))}`);
    return { is: 'shipment', shipment: this.view() };
  }

  get inputs(): Json | undefined {
    return this.states[this.standing];
  }
}

class Drawer implements Box {
  private readonly held = new Map<string, string>();
  get length(): number {
    return this.held.size;
  }
  key(at: number): string | null {
    return [...this.held.keys()][at] ?? null;
  }
  getItem(key: string): string | null {
    return this.held.get(key) ?? null;
  }
  setItem(key: string, text: string): void {
    this.held.set(key, text);
  }
  removeItem(key: string): void {
    this.held.delete(key);
    for (const hear of this.hearing) hear(key);
  }
  readonly hearing = new Set<(key: string) => void>();
  readonly removals = (hear: (key: string) => void): (() => void) => {
    this.hearing.add(hear);
    return () => this.hearing.delete(hear);
  };
  holds(text: string): boolean {
    return [...this.held.values()].some((held) => held.includes(JSON.stringify(text)));
  }
}

/** A question on its way: asked, then answered; either can be lost. */
interface Letter {
  ask: () => Reply;
  answer: (reply: Reply) => void;
  reply?: Reply;
}

interface Window {
  name: string;
  driver?: Driver;
  alarms: { call: () => void }[];
  /** What was typed last in each field, unless it was taken back on purpose. */
  watched: Map<Field, string>;
}

class World {
  readonly server = new Server();
  readonly drawer = new Drawer();
  readonly windows: [Window, Window];
  private letters: Letter[] = [];
  private ids = 0;
  /** As the browser saw it last; both windows are of one browser. */
  private seen: Shipment | undefined;

  constructor(private readonly begunHere: boolean) {
    const window = (name: string): Window => ({ name, alarms: [], watched: new Map() });
    this.windows = [window('a'), window('b')];
    if (!begunHere) this.server.change('first', 0, NOTHING_TYPED, { title: 'as it was' });
    this.open(this.windows[0]);
  }

  private ports(window: Window): Ports {
    const asked = (ask: () => Reply) =>
      new Promise<Reply>((answer) => {
        this.letters.push({ ask, answer });
      });
    return {
      transport: {
        load: () => asked(() => this.server.load()),
        preview: (inputs) =>
          asked(() => {
            const refused = FIELDS.filter((field) => isRefused(at(inputs as unknown as Json, field)));
            const fields = Object.fromEntries(refused.map((field) => [field, 'no']));
            const preview = { worked: {}, line: {} };
            return (refused.length > 0 ? { is: 'refused', fields } : { is: 'preview', preview }) as Reply;
          }),
        send: (_, { edit, version, from, change }) =>
          asked(() => this.server.change(edit, version, from, change)),
        step: (_, { edit, version, towards }) => asked(() => this.server.step(edit, version, towards)),
      },
      clock: {
        after: (_, call) => {
          const alarm = { call };
          window.alarms.push(alarm);
          return () => {
            window.alarms = window.alarms.filter((other) => other !== alarm);
          };
        },
      },
      storage: keeping(this.drawer, window.name, this.drawer.removals),
      seen: {
        see: (shipment) => {
          this.seen = shipment;
        },
        seen: () => Promise.resolve(this.seen),
      },
      stamp: () => ({ edit: `edit ${String((this.ids += 1))}`, unit: 'mm' }),
    };
  }

  open(window: Window): void {
    window.driver?.stop();
    window.alarms = [];
    window.driver = drive(
      ID,
      this.begunHere && window === this.windows[0],
      this.ports(window),
      () => undefined,
    );
  }

  type(window: Window, field: Field, text: string): void {
    const { driver } = window;
    if (!driver || driver.state.phase === 'missing') return;
    if (driver.state.aside !== undefined) this.forget(window, driver.state);
    driver.tell({ is: 'typed', inputs: patched(driver.state.typed, patchAt(field, text)) });
    window.watched.set(field, text);
  }

  /** What was refused and taken back is let go of when something else is typed. */
  private forget(window: Window, { aside }: Open): void {
    for (const field of FIELDS) if (at(aside, field) !== undefined) window.watched.delete(field);
  }

  settle(window: Window, whose: 'mine' | 'theirs'): void {
    const state = window.driver?.state;
    if (!state?.theirs) return;
    if (whose === 'theirs') {
      const change = changeOf(state);
      for (const field of FIELDS) if (at(change, field) !== undefined) window.watched.delete(field);
    }
    window.driver?.tell({ is: 'settled', whose });
  }

  /** Moves one letter on: to the server, back, or nowhere. */
  post(which: number, lost: boolean): void {
    const letter = this.letters[which % Math.max(this.letters.length, 1)];
    if (!letter) return;
    const arrived = () => {
      this.letters = this.letters.filter((other) => other !== letter);
    };
    if (lost) {
      arrived();
      letter.answer({ is: 'lost', why: 'the server can’t be reached' });
    } else if (letter.reply) {
      arrived();
      letter.answer(letter.reply);
    } else letter.reply = letter.ask();
  }

  ring(window: Window, which: number): void {
    const alarm = window.alarms[which % Math.max(window.alarms.length, 1)];
    if (!alarm) return;
    window.alarms = window.alarms.filter((other) => other !== alarm);
    alarm.call();
  }

  /** Lets everything that is on its way arrive, and everybody wait long enough. */
  async rest(): Promise<void> {
    for (let left = 400; left > 0; left -= 1) {
      await heard();
      if (this.letters.length > 0) this.post(0, false);
      else {
        const busy = this.windows.find(({ alarms }) => alarms.length > 0);
        if (!busy) return;
        this.ring(busy, 0);
      }
    }
    throw new Error('it never comes to rest');
  }
}

/** Lets promises that are settled be heard. */
async function heard(): Promise<void> {
  for (let turn = 0; turn < 4; turn += 1) await Promise.resolve();
}

type Act = (world: World, text: string) => void;

/** An act that tells what it is when it fails. */
function told(says: string, act: Act): Act {
  return Object.assign(act, { [fc.toStringMethod]: () => says });
}

const window = fc.constantFrom(0, 1) as fc.Arbitrary<0 | 1>;
const acts: fc.Arbitrary<Act> = fc.oneof(
  {
    weight: 6,
    arbitrary: fc
      .record({ which: window, field: fc.constantFrom(...FIELDS), bad: fc.boolean() })
      .map(({ which, field, bad }) =>
        told(`${String(which)} types ${field}${bad ? '!' : ''}`, (world, text) => {
          world.type(world.windows[which], field, bad && field === 'piece.width' ? `${text}!` : text);
        }),
      ),
  },
  {
    weight: 8,
    arbitrary: fc
      .record({ which: fc.nat(9), lost: fc.constantFrom(false, false, false, true) })
      .map(({ which, lost }) =>
        told(`post ${String(which)}${lost ? ' lost' : ''}`, (world) => {
          world.post(which, lost);
        }),
      ),
  },
  {
    weight: 5,
    arbitrary: fc.record({ which: window, alarm: fc.nat(3) }).map(({ which, alarm }) =>
      told(`${String(which)} rings ${String(alarm)}`, (world) => {
        world.ring(world.windows[which], alarm);
      }),
    ),
  },
  {
    weight: 2,
    arbitrary: fc
      .record({ which: window, towards: fc.constantFrom('undo' as const, 'redo' as const) })
      .map(({ which, towards }) =>
        told(`${String(which)} ${towards}`, (world, text) => {
          const stamp = { edit: `step ${text}`, unit: 'mm' as const };
          world.windows[which].driver?.tell({ is: 'wanted', towards, stamp });
        }),
      ),
  },
  {
    weight: 1,
    arbitrary: fc
      .record({ which: window, whose: fc.constantFrom('mine' as const, 'theirs' as const) })
      .map(({ which, whose }) =>
        told(`${String(which)} settles ${whose}`, (world) => {
          world.settle(world.windows[which], whose);
        }),
      ),
  },
  {
    weight: 2,
    arbitrary: window.map((which) =>
      told(`${String(which)} opens`, (world) => {
        world.open(world.windows[which]);
      }),
    ),
  },
);

/** A desk types and a tablet ticks; letters are late and lost, and nobody undoes. */
const sides: fc.Arbitrary<Act> = fc.oneof(
  {
    weight: 6,
    arbitrary: fc
      .oneof(
        fc.record({ which: fc.constant(0 as const), field: fc.constantFrom(...TYPED) }),
        fc.record({ which: fc.constant(1 as const), field: fc.constantFrom(...TICKS) }),
      )
      .map(({ which, field }) =>
        told(`${String(which)} fills ${field}`, (world, text) => {
          world.type(world.windows[which], field, text);
        }),
      ),
  },
  {
    weight: 8,
    arbitrary: fc
      .record({ which: fc.nat(9), lost: fc.constantFrom(false, false, false, true) })
      .map(({ which, lost }) =>
        told(`post ${String(which)}${lost ? ' lost' : ''}`, (world) => {
          world.post(which, lost);
        }),
      ),
  },
  {
    weight: 5,
    arbitrary: fc.record({ which: window, alarm: fc.nat(3) }).map(({ which, alarm }) =>
      told(`${String(which)} rings ${String(alarm)}`, (world) => {
        world.ring(world.windows[which], alarm);
      }),
    ),
  },
);

describe('an open shipment', () => {
  it('is never asked about where a desk types and a tablet ticks, and has what both did', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(sides, { minLength: 1, maxLength: 60 }), async (all) => {
        const world = new World(false);
        await world.rest();
        world.open(world.windows[1]);
        await world.rest();
        let number = 0;
        for (const act of all) {
          act(world, `text ${String((number += 1))}`);
          await heard();
          for (const { driver } of world.windows) expect(driver?.state.theirs).toBeUndefined();
        }
        await world.rest();
        expect(world.server.unseen).toEqual([]);
        for (const { driver, watched } of world.windows) {
          expect(driver?.state.theirs).toBeUndefined();
          for (const [field, text] of watched) expect(at(world.server.inputs, field)).toBe(text);
        }
      }),
      { numRuns: 2000 },
    );
  }, 120_000);

  it('has every character that was typed: on the server, or shown in the page and kept', async () => {
    await fc.assert(
      fc.asyncProperty(fc.boolean(), fc.array(acts, { minLength: 1, maxLength: 60 }), async (isNew, all) => {
        const world = new World(isNew);
        let number = 0;
        for (const act of all) {
          act(world, `text ${String((number += 1))}`);
          await heard();
        }
        await world.rest();
        expect(world.server.unseen).toEqual([]);
        for (const { driver, watched } of world.windows) {
          for (const [field, text] of watched) {
            const state = driver?.state;
            const isShown = [state?.typed, state?.aside].some((inputs) => at(inputs, field) === text);
            const isKept = isShown && world.drawer.holds(text);
            expect(isKept || world.server.ever.has(`${field}=${text}`), `${field} = ${text}`).toBe(true);
          }
          const state = driver?.state;
          if (!state || state.phase === 'missing' || state.theirs || state.aside !== undefined) continue;
          // What is refused stays; nothing else is left to do.
          const left = changeOf(state);
          expect(left === undefined ? [] : pathsOf(left)).toEqual(Object.keys(state.errors));
          expect(state.flight).toBeUndefined();
        }
      }),
      { numRuns: 4000 },
    );
  }, 120_000);
});
