// How figures are written. The core decides the precision; shown-lengths.json holds both to the same cases.
import { reactive } from 'vue';

import type { LengthUnit, Money, Studio } from '@/api/types';

type Manners = Pick<Studio['manners'], 'mass' | 'decimal' | 'date_order' | 'fraction'>;

/** How the studio writes; as most do until it is known. */
export const manners = reactive<Manners>({ mass: 'kg', decimal: 'point', date_order: 'dmy', fraction: 16 });

const NO_BREAK = '\u00a0';
const NARROW = '\u202f';
const MM_PER_INCH = 25.4;
const GRAMS_PER_OUNCE = 28.349523125;
const OUNCES = 16;
const M2_PER_SQUARE_FOOT = 0.092_903_04;
export const MM_PER_YARD = 914.4;
export const GRAMS_PER_POUND = GRAMS_PER_OUNCE * OUNCES;

/** Half up, as a person rounds; a binary hair under the half counts as the half. */
function rounded(value: number): number {
  return Math.floor(value + 0.5) + 0;
}

function inches(mm: number): string {
  const { fraction } = manners;
  const parts = rounded((mm / MM_PER_INCH) * fraction);
  const whole = Math.floor(parts / fraction);
  let above = parts - whole * fraction;
  let below = fraction;
  while (above > 0 && above % 2 === 0) [above, below] = [above / 2, below / 2];
  if (above === 0) return String(whole);
  return whole === 0 ? `${above}/${below}` : `${whole} ${above}/${below}`;
}

/** A number as the studio writes its decimals. */
export function decimals(text: string): string {
  return manners.decimal === 'comma' ? text.replace('.', ',') : text;
}

/** Pounds and ounces: whole ounces above a pound, tenths below. */
function pounds(grams: number): string {
  const ounces = grams / GRAMS_PER_OUNCE;
  if (rounded(ounces * 10) / 10 < OUNCES) return `${decimals(ounces.toFixed(1))}${NO_BREAK}oz`;
  const whole = rounded(ounces);
  const [lb, oz] = [Math.floor(whole / OUNCES), whole % OUNCES];
  return oz === 0 ? `${lb}${NO_BREAK}lb` : `${lb}${NO_BREAK}lb ${oz}${NO_BREAK}oz`;
}

/** A length as a number, without its unit. */
export function lengthNumber(mm: number, unit: LengthUnit): string {
  if (unit === 'in') return inches(mm);
  return unit === 'cm' ? decimals((rounded(mm) / 10).toFixed(1)) : String(rounded(mm));
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

/** Sides with × between them, and the unit once; a line breaks between two sides, never within 2 3/8. */
export function size(sides: readonly number[], unit: LengthUnit): string {
  const whole = sides.map((side) => lengthNumber(side, unit).replace(' ', NO_BREAK));
  const shown = whole.join(`${NARROW}×${NARROW}`);
  return `${shown}${NO_BREAK}${unit}`;
}

/** A mass: kilograms to two decimals below ten, else one; pounds and ounces where the studio weighs so. */
export function kilograms(grams: number): string {
  if (manners.mass === 'lb') return pounds(grams);
  const kg = grams / 1000;
  return `${decimals(kg.toFixed(kg < 10 ? 2 : 1))}${NO_BREAK}kg`;
}

/** The mass of one layer. */
export function grams(value: number): string {
  if (manners.mass === 'lb') return pounds(value);
  return `${decimals(value < 10 ? value.toFixed(1) : String(rounded(value)))}${NO_BREAK}g`;
}

/** A mass that may be negative, with its sign: whole grams, or pounds and ounces. */
export function signedGrams(value: number): string {
  const size = Math.abs(value);
  const shown = manners.mass === 'lb' ? pounds(size) : `${String(rounded(size))}${NO_BREAK}g`;
  return `${value < 0 ? '−' : '+'}${shown}`;
}

/** An amount with its currency. */
export function money(amount: Money): string {
  return `${decimals(amount.amount)}${NO_BREAK}${amount.currency}`;
}

/** An area in square metres, or in square feet where lengths are in inches. */
export function area(m2: number, unit: LengthUnit): string {
  return unit === 'in'
    ? `${decimals((m2 / M2_PER_SQUARE_FOOT).toFixed(1))}${NO_BREAK}sq ft`
    : `${decimals(m2.toFixed(2))}${NO_BREAK}m²`;
}

/** A length of tape or strip, as it comes off a roll: metres, or feet up to three yards and yards above. */
export function run(mm: number, unit: LengthUnit): string {
  if (unit !== 'in') return `${decimals((mm / 1000).toFixed(1))}${NO_BREAK}m`;
  const yards = mm / MM_PER_YARD;
  const [shown, symbol] = yards < 3 ? [yards * 3, 'ft'] : [yards, 'yd'];
  return `${decimals(shown.toFixed(1))}${NO_BREAK}${symbol}`;
}

const ORDER = { dmy: 'en-GB', mdy: 'en-US' } as const;
const DAY_PARTS = { day: 'numeric', month: 'short', timeZone: 'UTC' } as const;
const inOrder = <Made>(make: (order: string) => Made) => ({ dmy: make(ORDER.dmy), mdy: make(ORDER.mdy) });
const DAY = inOrder((order) => new Intl.DateTimeFormat(order, DAY_PARTS));
const DAY_AND_YEAR = inOrder((order) => new Intl.DateTimeFormat(order, { ...DAY_PARTS, year: 'numeric' }));
const WEEKDAY = new Intl.DateTimeFormat('en-GB', { weekday: 'short', timeZone: 'UTC' });

function dayOf(iso: string): Date {
  return new Date(`${iso}T00:00:00Z`);
}

/** A day as `4 Mar` or `Mar 4`. */
export function day(iso: string): string {
  if (Number.isNaN(dayOf(iso).getTime())) return iso;
  return DAY[manners.date_order === 'mdy' ? 'mdy' : 'dmy'].format(dayOf(iso));
}

/** A day as `4 Mar 2027`, `Mar 4, 2027` or `2027-03-04`, as the studio writes it. */
export function dayAndYear(iso: string): string {
  if (Number.isNaN(dayOf(iso).getTime())) return iso;
  const { date_order } = manners;
  return date_order === 'ymd' ? iso.slice(0, 10) : DAY_AND_YEAR[date_order].format(dayOf(iso));
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
