// What a quick sum asks, what it answers, and what of it a shipment can begin with.
import type { components } from '@/api/schema';
import type { DraftPiece } from '@/shipment/draft';

type Schemas = components['schemas'];

export type BoxSum = Schemas['BoxSum'];
export type SumName =
  | 'corner-pocket'
  | 'contact-sheet'
  | 'wrap'
  | 'cushion'
  | 'press-in'
  | 'stack'
  | 'roll'
  | 'box'
  | 'box-face'
  | 'tray'
  | 'folder'
  | 'saved-carton'
  | 'tray-over'
  | 'slit-tray'
  | 'folder-lapped'
  | 'telescope'
  | 'triangular-tube'
  | 'billable-weight'
  | 'series'
  | 'falls'
  | 'pressed'
  | 'glass'
  | 'odds'
  | 'base'
  | 'pierced'
  | 'harm';

export interface Ask {
  key: string;
  label: string;
  unit: string;
  /** What stands there at first; empty for one that may be left out. */
  first: number | null;
  optional?: boolean;
  /** Drawn along a line rather than typed. */
  slider?: { least: number; most: number; step: number };
}

export type FigureKind =
  | 'mm'
  | 'm2'
  | 'count'
  | 'kpa'
  | 'g'
  | 'n'
  | 'kg'
  | 'plain'
  | 'words'
  | 'cm2'
  | 'kjm3'
  | 'hz'
  | 'tiny'
  | 'onein';

export interface Told {
  /** As in the answer; a part of a part with a dot. */
  key: string;
  label: string;
  kind: FigureKind;
  /** What is said when there is no number. */
  none?: string;
  /** Told only where the answer has it. */
  when?: 'given';
}

export type Numbers = Record<string, number | null>;
export type Answer = Record<string, unknown>;

export interface Sum {
  name: SumName;
  /** What the server calls it, where that is not its name. */
  path?: string;
  title: string;
  about: string;
  asks: readonly Ask[];
  /** Whether what is asked is put together before it is sent. */
  nested?: boolean;
  /** What is asked of a box, to fold it. */
  box?: (numbers: Numbers, told: Answer) => BoxSum;
  tells: readonly Told[];
  work: (numbers: Numbers) => Promise<Answer>;
  /** What a shipment begins with. */
  piece: (numbers: Numbers) => Partial<DraftPiece>;
}

export const mm = (key: string, label: string, first: number): Ask => ({ key, label, unit: 'mm', first });
export const may = (key: string, label: string, unit: string): Ask => ({
  key,
  label,
  unit,
  first: null,
  optional: true,
});
export const typed = (value: number | null | undefined) => (value == null ? '' : `${value} mm`);

/** Numbers that were left out are not sent. */
export function body<Name extends keyof Schemas>(numbers: Numbers, more: object = {}): Schemas[Name] {
  const given = Object.entries(numbers).filter(([, value]) => value !== null);
  return { ...Object.fromEntries(given), ...more } as Schemas[Name];
}

/** Returns a part of an answer. */
export function partOf(told: Answer, key: string): unknown {
  return key.split('.').reduce<unknown>((part, name) => (part as Answer | undefined)?.[name], told);
}
