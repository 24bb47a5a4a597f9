// The tables of odds and beginnings while they are edited, every part present.
import type { BeginLine, OddsTables } from '@/api/types';

export interface ClassRow {
  base_percent: number | null;
  base_size: number | null;
  base_percent_small: number | null;
  base_size_small: number | null;
  base_percent_large: number | null;
  base_size_large: number | null;
  shares_percent: Record<Hazard, number | null>;
}
export type Hazard = 'flat' | 'edges' | 'pressed' | 'pierced' | 'stacked' | 'damp';

export interface EditedOdds {
  classes: Record<string, ClassRow>;
  routes: Record<string, { roughness: number | null; wet: boolean }>;
  places: {
    country: string;
    postcode_prefixes: string[];
    route: string;
    wet_months: number[];
    hot_months: number[];
  }[];
  frail_times: number | null;
  lost_percent: number | null;
  record: { class: string; route: string; sent: number | null; damaged: number | null }[];
}

export interface EditedLine {
  routes: string[];
  classes: string[];
  value_over: number | null;
  value_up_to: number | null;
  irreplaceable: boolean;
  start_from: string;
}

/** Returns tables with every part present. */
export function editedOdds(odds: OddsTables | undefined): EditedOdds {
  const empty = { classes: {}, routes: {}, places: [], frail_times: 1.5, lost_percent: 0.15, record: [] };
  const known = { ...empty, ...(odds as Partial<EditedOdds> | undefined) };
  const nowhere = {
    base_size: null,
    base_percent_small: null,
    base_size_small: null,
    base_percent_large: null,
    base_size_large: null,
  };
  const rows = Object.entries(known.classes as Record<string, ClassRow>).map(
    ([name, row]) => [name, { ...nowhere, ...row }] as const,
  );
  return {
    ...known,
    classes: Object.fromEntries(rows),
    places: known.places.map((place) => ({ ...place, postcode_prefixes: [...place.postcode_prefixes] })),
  };
}

/** Returns lines with every part present. */
export function editedLines(lines: readonly BeginLine[] | undefined): EditedLine[] {
  return (lines ?? []).map((line) => ({
    routes: [...(line.routes ?? [])],
    classes: [...(line.classes ?? [])],
    value_over: line.value_over ?? null,
    value_up_to: line.value_up_to ?? null,
    irreplaceable: line.irreplaceable ?? false,
    start_from: line.start_from ?? '',
  }));
}
