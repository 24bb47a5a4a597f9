// How words, numbers and their nouns are put together.
import * as show from '@/units/show';

/** The words of a choice, for a sentence. */
export function worded(
  choices: readonly { value: string; text: string }[],
  value: string | null | undefined,
): string {
  return choices.find((choice) => choice.value === value)?.text.toLowerCase() ?? '';
}

const COUNT = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'] as const;

/** A small number as a word. */
export function count(number: number): string {
  return COUNT[number] ?? String(number);
}

/** A number of things: `one turn`, `two turns`. */
export function counted(number: number, thing: string): string {
  return `${count(number)} ${thing}${number === 1 ? '' : 's'}`;
}

/** A text with a capital at its beginning. */
export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** A chance as people say it. */
export function oneIn(many: number): string {
  return `1 in ${show.grouped(many)}`;
}

/** What a change adds or takes, with its sign. */
export function signed(by: number, digits = 0): string {
  const shown = Math.abs(by).toFixed(digits);
  return `${by < 0 ? '−' : '+'}${shown}`;
}
