// Runs the state machine of one shipment against a server, a clock and a place to keep things, all passed in.
import type { Inputs, Preview, Shipment } from '@/api/types';

import type { Json } from './draft';
import type { Part } from './looked';
import { begin, keptOf, step } from './machine';
import type { Effect, Event, Flight, Kept, Open, Stamp, Step } from './machine';

/** What a server can answer. */
export type Reply =
  | { is: 'shipment'; shipment: Shipment }
  | { is: 'refused'; fields: Record<string, string> }
  | { is: 'stale'; current: Shipment }
  | { is: 'put_away' }
  | { is: 'unknown' }
  | { is: 'ended' }
  | { is: 'lost'; why: string };

export interface Transport {
  load(id: string): Promise<Reply>;
  preview(inputs: Inputs): Promise<Reply | { is: 'preview'; preview: Preview; without?: Part[] }>;
  send(id: string, flight: Flight): Promise<Reply>;
  step(id: string, step: Step): Promise<Reply>;
}

export interface Clock {
  /** Calls once after a while; returns how to call it off. */
  after(ms: number, call: () => void): () => void;
}

export interface Storage {
  keep(id: string, kept: Kept | undefined): void;
  kept(id: string): Kept | undefined;
  /** Calls when another window let go of what this one keeps; returns how to stop that. */
  watch(id: string, gone: () => void): () => void;
}

/** Shipments as they were seen last, for when the server is away. */
export interface Seen {
  see(shipment: Shipment): void;
  seen(id: string): Promise<Shipment | undefined>;
}

export interface Ports {
  transport: Transport;
  clock: Clock;
  storage: Storage;
  seen: Seen;
  /** Makes what the next thing that is sent is known by. */
  stamp(): Stamp;
}

export interface Driver {
  readonly state: Open;
  tell(event: Event): void;
  stop(): void;
}

/** Opens a shipment; every state that it comes to is shown. */
export function drive(id: string, isNew: boolean, ports: Ports, show: (state: Open) => void): Driver {
  const { transport, clock, storage, seen, stamp } = ports;
  const alarms = new Map<string, () => void>();
  let stopped = false;
  let [state, effects] = begin(id, isNew, storage.kept(id));

  function tell(event: Event): void {
    if (stopped) return;
    const before = state.shipment;
    [state, effects] = step(state, event);
    if (state.shipment && state.shipment !== before) seen.see(state.shipment);
    for (const effect of effects) run(effect);
    show(state);
  }

  function run(effect: Effect): void {
    switch (effect.do) {
      case 'keep':
        return storage.keep(id, effect.kept);
      case 'wake': {
        const { what } = effect;
        alarms.get(what)?.();
        const ring = () =>
          tell(what === 'preview' ? { is: 'due', what } : { is: 'due', what, stamp: stamp() });
        alarms.set(what, clock.after(effect.after, ring));
        return;
      }
      case 'load':
        return hear(transport.load(id), loaded);
      case 'preview': {
        const { edition, inputs } = effect;
        return hear(transport.preview(inputs as Json as unknown as Inputs), (reply) => {
          if (reply.is === 'preview')
            tell({ is: 'previewed', edition, preview: reply.preview, without: reply.without });
          else if (reply.is === 'refused') tell({ is: 'doubted', edition, fields: reply.fields });
        });
      }
      case 'send':
        return hear(transport.send(id, effect.flight), (reply) => answered(effect.flight.edit, reply));
      case 'step':
        return hear(transport.step(id, effect.step), (reply) => answered(effect.step.edit, reply));
    }
  }

  function hear<Heard>(asked: Promise<Heard>, act: (reply: Heard) => void): void {
    void asked.then(act);
  }

  function loaded(reply: Reply): void {
    if (reply.is === 'shipment') tell({ is: 'loaded', shipment: reply.shipment });
    else if (reply.is === 'lost') {
      tell({ is: 'away', why: reply.why });
      recall(reply.why);
    } else tell({ is: 'unknown' });
  }

  /** What was seen here last stands in until the server is back: it is worked on, and what is stored by then laid under it. */
  function recall(why: string): void {
    if (state.phase !== 'opening') return;
    hear(seen.seen(id), (known) => {
      if (known && state.away !== undefined) tell({ is: 'recalled', shipment: known, why });
    });
  }

  function answered(edit: string, reply: Reply): void {
    switch (reply.is) {
      case 'shipment':
        return tell({ is: 'stored', edit, shipment: reply.shipment });
      case 'refused':
        return tell({ is: 'refused', edit, fields: reply.fields });
      case 'stale':
        return tell({ is: 'stale', edit, current: reply.current });
      case 'lost':
        tell({ is: 'lost', edit, why: reply.why });
        return recall(reply.why);
      case 'put_away':
        tell({ is: 'ended', edit });
        return hear(transport.load(id), (now) => {
          if (now.is === 'shipment') tell({ is: 'seen', shipment: now.shipment });
        });
      default:
        return tell({ is: 'ended', edit });
    }
  }

  for (const effect of effects) run(effect);
  show(state);
  const unwatch = storage.watch(id, () => {
    const kept = keptOf(state);
    if (kept) storage.keep(id, kept);
  });
  return {
    get state() {
      return state;
    },
    tell,
    stop() {
      stopped = true;
      unwatch();
      for (const callOff of alarms.values()) callOff();
    },
  };
}
