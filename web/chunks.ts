// Which modules travel together. A file costs a slow line more than a few kilobytes: what a place needs comes in a few files, and of what
// it doesn't need little comes along.

/** What of a module is asked. */
export interface Graph {
  getModuleInfo(id: string): { importedIds: string[]; dynamicallyImportedIds: string[] } | null;
}

/** What is there whichever place is shown. */
export const PROGRAM = 'program';
/** Files that several parts share. What a module of one of them needs is in the same file, or in one before it. */
export const FILES = ['first', PROGRAM, 'work', 'controls', 'shipment', 'stops'] as const;

/** What the first file is made of, beside itself: it waits for nothing else. */
const FIRST = /src\/parts\.ts$|src\/api\/ahead\.ts$|preload-helper|rolldown\/runtime/;
const APP = /src\/app\.ts$/;
const SHIPMENT = /src\/places\/ShipmentPlace\.vue$/;
const STOP = /src\/stops\//;
/** Fields and choices. */
const CONTROL = /node_modules\/bootstrap-vue-next/;
const BENCH = /src\/places\/BenchPlace\.vue$/;

/** Returns for each module the parts of the page that can't be shown without it: those that are loaded as they are needed. */
function usersOf(entry: string, graph: Graph): Map<string, Set<string>> {
  const users = new Map<string, Set<string>>();
  const roots = [entry];
  for (const root of roots) {
    const open = [root];
    for (const id of open) {
      const by = users.get(id) ?? new Set();
      if (by.has(root)) continue;
      users.set(id, by.add(root));
      const info = graph.getModuleInfo(id);
      open.push(...(info?.importedIds ?? []));
      roots.push(...(info?.dynamicallyImportedIds ?? []).filter((other) => !roots.includes(other)));
    }
  }
  return users;
}

let known: Map<string, Set<string>> | undefined;

/** Returns the name of the file that a module goes into; `null` where it goes with the only part that uses it. */
export function fileOf(id: string, graph: Graph): (typeof FILES)[number] | null {
  if (FIRST.test(id)) return 'first';
  known ??= usersOf(new URL('src/main.ts', import.meta.url).pathname, graph);
  const users = [...(known.get(id) ?? [])];
  if (users.some((user) => APP.test(user))) return PROGRAM;
  if (users.length < 2) return null;
  const ofShipments = users.some((user) => SHIPMENT.test(user));
  if (CONTROL.test(id)) return users.length > 3 ? 'controls' : null;
  const bench = users.some((user) => BENCH.test(user));
  if (ofShipments) return bench ? 'work' : 'shipment';
  const onStops = users.filter((user) => STOP.test(user)).length;
  if (onStops === users.length) return onStops > 3 ? 'stops' : null;
  return null;
}
