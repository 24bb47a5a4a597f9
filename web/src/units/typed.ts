// Numbers as people type them.

const ONE_COMMA = /^[^.,]*,[^.,]*$/u;

/** A number with a comma, with a point in its place; everything else as it was typed. */
export function withPoint(typed: string): string {
  return ONE_COMMA.test(typed) ? typed.replace(',', '.') : typed;
}
