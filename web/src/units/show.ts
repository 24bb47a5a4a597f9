// How figures are written. The core decides the precision; shown-lengths.json holds both to the same cases.
import type { LengthUnit, Money } from '@/api/types';

const NO_BREAK = '\u00a0';
const NARROW = '\u202f';
const MM_PER_INCH = 25.4;
const SIXTEENTHS = 16;

/** Half up, as a person rounds; a binary hair under the half counts as the half. */
function rounded(value: number): number {
  return Math.floor(value + 0.5) + 0;
}

function inches(mm: number): string {
  const sixteenths = rounded((mm / MM_PER_INCH) * SIXTEENTHS);
  const whole = Math.floor(sixteenths / SIXTEENTHS);
  let above = sixteenths - whole * SIXTEENTHS;
  let below = SIXTEENTHS;
  while (above > 0 && above % 2 === 0) [above, below] = [above / 2, below / 2];
  if (above === 0) return String(whole);
  return whole === 0 ? `${above}/${below}` : `${whole} ${above}/${below}`;
}

/** A length as a number, without its unit. */
export function lengthNumber(mm: number, unit: LengthUnit): string {
  if (unit === 'in') return inches(mm);
  return unit === 'cm' ? (rounded(mm) / 10).toFixed(1) : String(rounded(mm));
}

/** A length with its unit: `902 mm`, `90.2 cm`, `35 1/2 in`. */
export function length(mm: number, unit: LengthUnit): string {
  return `${lengthNumber(mm, unit)}${NO_BREAK}${unit}`;
}

/** A length that may be negative, with its sign. */
export function signedLength(mm: number, unit: LengthUnit): string {
  return `${mm < 0 ? '−' : '+'}${length(Math.abs(mm), unit)}`;
}

/** A drop height: whole centimetres, as people speak of falls, or whole inches. */
export function height(mm: number, unit: LengthUnit, withUnit: boolean): string {
  const [shown, symbol] = unit === 'in' ? [mm / MM_PER_INCH, 'in'] : [mm / 10, 'cm'];
  return `${rounded(shown)}${withUnit ? `${NO_BREAK}${symbol}` : ''}`;
}

/** Sides with × between them, and the unit once. */
export function size(sides: readonly number[], unit: LengthUnit): string {
  const shown = sides.map((side) => lengthNumber(side, unit)).join(`${NARROW}×${NARROW}`);
  return `${shown}${NO_BREAK}${unit}`;
}

/** A mass: kilograms to two decimals below ten, else one. */
export function kilograms(grams: number): string {
  const kg = grams / 1000;
  return `${kg.toFixed(kg < 10 ? 2 : 1)}${NO_BREAK}kg`;
}

/** The mass of one layer. */
export function grams(value: number): string {
  return `${value < 10 ? value.toFixed(1) : String(rounded(value))}${NO_BREAK}g`;
}

/** An amount with its currency. */
export function money(amount: Money): string {
  return `${amount.amount}${NO_BREAK}${amount.currency}`;
}

/** An area in square metres. */
export function area(m2: number): string {
  return `${m2.toFixed(2)}${NO_BREAK}m²`;
}

const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' });
const DAY_AND_YEAR = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  timeZone: 'UTC',
});
const WEEKDAY = new Intl.DateTimeFormat('en-GB', { weekday: 'short', timeZone: 'UTC' });

function dayOf(iso: string): Date {
  return new Date(`${iso}T00:00:00Z`);
}

/** A day as `4 Mar`. */
export function day(iso: string): string {
  if (Number.isNaN(dayOf(iso).getTime())) return iso;
  return DAY.format(dayOf(iso));
}

/** A day as `4 Mar 2027`. */
export function dayAndYear(iso: string): string {
  if (Number.isNaN(dayOf(iso).getTime())) return iso;
  return DAY_AND_YEAR.format(dayOf(iso));
}

const DAY_AND_TIME = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
});

/** A moment as `4 Mar, 10:15`, by the clock on the wall. */
export function dayAndTime(iso: string): string {
  const moment = new Date(iso);
  return Number.isNaN(moment.getTime()) ? iso : DAY_AND_TIME.format(moment);
}

/** A day's name as `Thu`. */
export function weekday(iso: string): string {
  return WEEKDAY.format(dayOf(iso));
}

/** A count, its thousands apart where it has five digits or more. */
export function grouped(count: number): string {
  const GROUPED_FROM = 10_000;
  return count < GROUPED_FROM ? String(count) : count.toLocaleString('en').replaceAll(',', '\u202f');
}

/** What was used before, by its weight and by the room that it would have taken in the bin: `1.24 kg (14 litres)`; nothing of nothing. */
export function usedAgain(g: number, litres: number): string {
  if (g < 0.5) return '';
  const mass = g < 1000 ? grams(g) : kilograms(g);
  if (litres < 0.05) return mass;
  const room = litres < 9.95 ? litres.toFixed(1) : grouped(Math.round(litres));
  return `${mass} (${room} ${room === '1.0' ? 'litre' : 'litres'})`;
}
