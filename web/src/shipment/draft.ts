// What is typed about a shipment, every field present; and how it differs from what is stored.
import type { Inputs } from '@/api/types';

export interface Draft {
  title: string;
  buyer: { name: string; street: string; town: string; postcode: string; country: string };
  promised: string;
  value: string;
  piece: {
    construction: string;
    width: string;
    height: string;
    depth: string;
    medium: string;
    paint: string;
    finished: string;
  };
  choices: {
    first_turns: number | null;
    second_turns: number | null;
    face_board: string;
    board_proud: string;
    pocket_leg: string;
    clearance: string;
    box_board: string;
  };
  settled: { guard: string; box: string };
  service: string;
}

export type Json = string | number | null | { [key: string]: Json };

/** Inputs of which any part may be absent. */
export type Loose<T> = { [Key in keyof T]?: T[Key] extends object ? Loose<T[Key]> : T[Key] | null };

/** Returns a draft of stored inputs; what is absent is empty. */
export function draftOf(inputs: Loose<Inputs>): Draft {
  const { buyer, piece, choices, settled } = inputs;
  return {
    title: inputs.title ?? '',
    buyer: {
      name: buyer?.name ?? '',
      street: buyer?.street ?? '',
      town: buyer?.town ?? '',
      postcode: buyer?.postcode ?? '',
      country: buyer?.country ?? '',
    },
    promised: inputs.promised ?? '',
    value: inputs.value ?? '',
    piece: {
      construction: piece?.construction ?? '',
      width: piece?.width ?? '',
      height: piece?.height ?? '',
      depth: piece?.depth ?? '',
      medium: piece?.medium ?? '',
      paint: piece?.paint ?? 'thin',
      finished: piece?.finished ?? '',
    },
    choices: {
      first_turns: choices?.first_turns ?? null,
      second_turns: choices?.second_turns ?? null,
      face_board: choices?.face_board ?? '',
      board_proud: choices?.board_proud ?? '',
      pocket_leg: choices?.pocket_leg ?? '',
      clearance: choices?.clearance ?? '',
      box_board: choices?.box_board ?? '',
    },
    settled: { guard: settled?.guard ?? '', box: settled?.box ?? '' },
    service: inputs.service ?? '',
  };
}

/** Texts that the server keeps even when they are empty. */
const KEPT_EMPTY = new Set(['title', 'name', 'street', 'town', 'postcode', 'country']);

/** Returns the inputs that a draft stands for: what is empty is left out. */
export function inputsOf(draft: Draft): Inputs {
  return withoutEmpty(draft as unknown as Json) as unknown as Inputs;
}

function withoutEmpty(value: Json): Json {
  if (value === null || typeof value !== 'object') return value;
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
  return value !== null && typeof value === 'object';
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

/** Returns the paths of every value that a patch touches, as `piece.width`. */
export function pathsOf(patch: Json, prefix = ''): string[] {
  if (!isObject(patch)) return [prefix];
  return Object.entries(patch).flatMap(([key, part]) => pathsOf(part, prefix ? `${prefix}.${key}` : key));
}

/** Returns a patch without the values at some paths; nothing when none is left. */
export function withoutPaths(patch: Json, paths: readonly string[], prefix = ''): Json | undefined {
  if (!isObject(patch)) return patch;
  const kept: Record<string, Json> = {};
  for (const [key, part] of Object.entries(patch)) {
    const path = prefix ? `${prefix}.${key}` : key;
    const left = paths.includes(path) ? undefined : withoutPaths(part, paths, path);
    if (left !== undefined) kept[key] = left;
  }
  return Object.keys(kept).length > 0 ? kept : undefined;
}
