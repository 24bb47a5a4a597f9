// When a parcel arrives, and what a carrier itself said, in words.
import type { Arrival, Confirmed, ServiceLadder } from '@/api/types';
import { day, kilograms, money } from '@/units/show';

/** Two days as one text; one where they are the same. */
function span(earliest: string, latest: string): string {
  return earliest === latest ? day(earliest) : `${day(earliest)} to ${day(latest)}`;
}

/** When it is handed over and arrives. */
export function arrivalWords({ handed_over, earliest, latest, cut_off }: Arrival): string {
  const by = cut_off ? `, booked before ${cut_off.slice(0, 5)}` : '';
  return `Handed over ${day(handed_over)}${by}, it arrives ${span(earliest, latest)}`;
}

/** Whether the promised day is met. */
export function promiseWords({ promise, over }: Arrival, promised: string): string {
  if (over) return 'The quotation has expired';
  switch (promise) {
    case 'yes':
      return `in time for ${day(promised)}`;
    case 'perhaps':
      return `maybe too late for ${day(promised)}`;
    case 'no':
      return `too late for ${day(promised)}`;
    default:
      return '';
  }
}

/** What the doubt about the weight could do to a price; nothing where it does nothing. */
export function spreadWords(spread: ServiceLadder['spread']): string {
  if (!spread) return '';
  const at = (price: typeof spread.at_most, grams: number) =>
    price ? `${money(price)} at ${kilograms(grams)}` : `not taken at ${kilograms(grams)}`;
  return `The weight is only planned: ${at(spread.at_least, spread.least_g)}, ${at(spread.at_most, spread.most_g)}. Weigh it to know.`;
}

/** What the carrier’s own service said beside its tariff; whoever stands in for the carrier is called so. */
export function confirmedWords(said: Confirmed | undefined, asked: boolean, standIn: boolean): string {
  if (!asked || !said) return '';
  const [The, the] = standIn
    ? ['The stand-in for the carrier', 'the stand-in for the carrier']
    : ['The carrier itself', 'the carrier itself'];
  switch (said.says) {
    case 'agrees':
      return said.total ? `${The} says the same.` : '';
    case 'differs':
      return said.total
        ? `${The} says ${money(said.total)}${said.by_tariff ? `, where its tariff says ${money(said.by_tariff)}` : ''}: ask before you book.`
        : `${The} says that it does not take it: ask before you book.`;
    case 'nothing':
      return `By the tariff alone: ${the} does not answer.`;
  }
}
