// Which modules travel together. A file costs a slow line more than a few kilobytes: what a place needs comes in a few files, and of what
// it doesn't need little comes along. Nothing here depends on the folder that it is built in.

import { fileURLToPath } from 'node:url';

/** What of a module is asked. */
export interface Graph {
  getModuleInfo(
    id: string,
  ): { code: string | null; importedIds: string[]; dynamicallyImportedIds: string[] } | null;
}

/** What is there whichever place is shown. */
export const PROGRAM = 'program';
/** Files that several parts share. What a module of one of them needs is in the same file, or in one before it. */
export const FILES = ['first', PROGRAM, 'work', 'controls', 'shipment', 'stops'] as const;

/** What the first file is made of, beside itself: it waits for nothing else. */
const FIRST = /^src\/parts\.ts$|^src\/api\/ahead\.ts$|preload-helper|rolldown\/runtime/;
const APP = 'src/app.ts';
const SHIPMENT = 'src/places/ShipmentPlace.vue';
const BENCH = 'src/places/BenchPlace.vue';
const STOP = /^src\/stops\//;
/** Fields and choices. */
const CONTROL = /^node_modules\/bootstrap-vue-next/;
/** A control that so many parts use goes with them; the dialog, of help, questions, sign-in and search, is no part of any first view. */
const MOST_WITH_PARTS = 4;
/** A shared module of up to so many characters, before they are minified, goes with the program: a file for it would cost more. */
const LITTLE = 2_500;

const FOLDER = fileURLToPath(new URL('.', import.meta.url));
/** Returns the name of a module within this folder. */
const named = (id: string) => id.replace(FOLDER, '');

/** Returns for each module the parts of the page that can't be shown without it, by name: those that are loaded as they are needed. */
function usersOf(entry: string, graph: Graph): Map<string, Set<string>> {
  const users = new Map<string, Set<string>>();
  const roots = [entry];
  for (const root of roots) {
    const open = [root];
    for (const id of open) {
      const by = users.get(id) ?? new Set();
      if (by.has(named(root))) continue;
      users.set(id, by.add(named(root)));
      const info = graph.getModuleInfo(id);
      open.push(...(info?.importedIds ?? []));
      roots.push(...(info?.dynamicallyImportedIds ?? []).filter((other) => !roots.includes(other)));
    }
  }
  return users;
}

let known: Map<string, Set<string>> | undefined;

/** Whether a module is little, and so is whatever it needs that isn't in the program anyway. */
function isLittle(id: string, graph: Graph): boolean {
  const info = graph.getModuleInfo(id);
  if (info?.code == null || info.code.length > LITTLE) return false;
  return info.importedIds.every((needed) => [PROGRAM, 'first'].includes(fileOf(needed, graph) ?? ''));
}

/** Returns the name of the file that a module goes into; `null` where it goes with the parts that use it. */
export function fileOf(id: string, graph: Graph): (typeof FILES)[number] | null {
  if (FIRST.test(named(id))) return 'first';
  known ??= usersOf(`${FOLDER}src/main.ts`, graph);
  const users = [...(known.get(id) ?? [])];
  if (users.includes(APP)) return PROGRAM;
  if (users.length < 2) return null;
  if (isLittle(id, graph)) return PROGRAM;
  const ofShipments = users.includes(SHIPMENT);
  if (CONTROL.test(named(id))) return users.length > MOST_WITH_PARTS ? 'controls' : null;
  if (ofShipments) return users.includes(BENCH) ? 'work' : 'shipment';
  const onStops = users.filter((user) => STOP.test(user)).length;
  if (onStops === users.length) return onStops > 3 ? 'stops' : null;
  return null;
}
