// A band of material along a line: its outline and the pattern that tells what it is.

export type Pattern =
  'contact' | 'card' | 'fibreboard' | 'plywood' | 'foam' | 'bubble' | 'fill' | 'film' | 'art' | 'tape';

/** Which side of a band looks outward. */
export type Outward = 'up' | 'down' | 'left';

export interface Band {
  x: number;
  y: number;
  width: number;
  height: number;
  pattern: Pattern;
  outward: Outward;
  /** How many thicknesses of material lie in it. */
  turns: number;
}

/** The pattern of a board, by what it is called in the stores. */
export function boardPattern(material: string): Pattern {
  if (/fibreboard|hardboard/.test(material)) return 'fibreboard';
  if (/plywood/.test(material)) return 'plywood';
  return /foam/.test(material) ? 'foam' : 'card';
}

/** The pattern of a cushion that is wound around. */
export function wrapPattern(material: string): Pattern {
  return /bubble/.test(material) ? 'bubble' : 'foam';
}

const LEAST_WAVE = 5;

/** The flutes of corrugated card: a wave between two liners. */
export function flutes(length: number, thickness: number): string {
  const step = Math.max(LEAST_WAVE, thickness * 0.9);
  const waves = Math.max(1, Math.round(length / (2 * step)));
  const half = length / waves / 2;
  const [high, low] = [thickness * 0.16, thickness * 0.84];
  let path = `M0 ${low}`;
  for (let wave = 0; wave < waves; wave += 1) {
    const x = wave * 2 * half;
    path += `C${x + half * 0.5} ${low} ${x + half * 0.5} ${high} ${x + half} ${high}`;
    path += `S${x + half * 1.5} ${low} ${x + 2 * half} ${low}`;
  }
  return path;
}

/** A sheet of bubbles, its flat side at the bottom and the bubbles upward. */
export function bubbles(length: number, thickness: number, bottom: number): string {
  const radius = Math.max(2, thickness * 0.46);
  const count = Math.max(1, Math.floor(length / (radius * 2.3)));
  const step = length / count;
  let path = `M0 ${bottom}H${length}`;
  for (let bubble = 0; bubble < count; bubble += 1) {
    const left = step * (bubble + 0.5) - radius;
    path += `M${left} ${bottom}a${radius} ${Math.min(radius * 1.6, thickness * 0.86)} 0 0 1 ${radius * 2} 0`;
  }
  return path;
}
