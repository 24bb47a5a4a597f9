// What an amount on a page is: a part of what a parcel costs the studio, or one of the few other sums, each with its name.
import type { Cost } from '@/api/types';

/** The parts and sums of what a parcel costs, as they are called. */
export const COST_NAMES: Record<keyof Cost, string> = {
  materials: 'materials',
  work: 'labour',
  overhead: 'overhead',
  work_and_overhead: 'labour and overhead',
  carriage: 'carriage',
  surcharges: 'surcharges',
  tax: 'tax',
  cover: 'cover',
  to_carrier: 'carrier',
  expected_loss: 'expected damage',
  to_send: 'to send',
  total: 'total with expected damage',
};

/** What else is an amount: of another plan or price, of one line, or no cost of the parcel at all. */
export type OtherSum =
  // The same sums, were something done otherwise.
  | 'total_then'
  | 'to_carrier_then'
  | 'difference'
  // A line of the sum.
  | 'line'
  | 'layer'
  // What a damaged parcel costs.
  | 'harm'
  | 'sheets_opened'
  | 'saved_by_reuse'
  // In the carrier's words and money.
  | 'carrier_says'
  | 'quoted'
  // Cover and what it is for.
  | 'worth'
  | 'covered'
  | 'not_covered'
  | 'cover_pays_back'
  // The buyer's side.
  | 'buyer_pays'
  | 'buyer_paid'
  | 'over_carriage'
  | 'gain'
  | 'claimed';

export type SumName = keyof Cost | OtherSum;
