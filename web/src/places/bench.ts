// What the bench is called by, part by part.
import type { BenchRow, Place, SortName, WorkGroup } from '@/api/types';

export const PLACES: { value: Place; text: string }[] = [
  { value: 'bench', text: 'On the bench' },
  { value: 'sent', text: 'Sent' },
  { value: 'archive', text: 'Archive' },
  { value: 'bin', text: 'Deleted' },
];
export const MOVED: Record<Place, string> = {
  bench: 'is back where it was',
  sent: 'is back where it was',
  archive: 'is in the archive, with the plan that it has',
  bin: 'is deleted',
};
export const SORTS: { value: SortName; text: string }[] = [
  { value: 'promised', text: 'promised first' },
  { value: 'newest', text: 'newest first' },
  { value: 'title', text: 'by title' },
  { value: 'buyer', text: 'by buyer' },
];

/** By what can be done now, in the order of the bench; within, in the order of the list. */
const GROUPS: Record<WorkGroup, string> = {
  pack: 'Wrap today',
  cut: 'To cut',
  weigh: 'To weigh',
  hand_over: 'To hand over',
  settle: 'To settle',
  plan: 'To plan',
  paint: 'Waiting for paint',
  materials: 'Waiting for materials',
  on_its_way: 'On its way',
};

export interface Group {
  name: string;
  rows: BenchRow[];
}

/** Parts rows by what can be done with each now; empty parts are left out. */
export function grouped(rows: readonly BenchRow[]): Group[] {
  return Object.entries(GROUPS)
    .map(([group, name]) => ({ name, rows: rows.filter((row) => row.line.group === group) }))
    .filter((group) => group.rows.length > 0);
}
