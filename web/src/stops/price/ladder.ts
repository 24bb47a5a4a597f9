// A service's prices by weight, as steps that can be drawn.
import { scaleLinear } from 'd3-scale';

import type { Rung, Step } from '@/api/types';
import { decimals, kilograms } from '@/units/show';
import type { useUnits } from '@/units/useUnits';

type Units = ReturnType<typeof useUnits>;

export const FRAME = { width: 460, height: 220, left: 52, right: 14, top: 16, bottom: 34 } as const;
const GRAMS = 1000;
const GROUND = 0.8;
/** Prices closer together than this share no place for their figures. */
const APART = 15;

export interface Tread {
  from: number;
  to: number;
  y: number;
  price: string;
  /** Whether its price can be written beside the axis. */
  told: boolean;
}

/** The treads of a ladder, and where a billed weight stands on it. */
export function treads(ladder: readonly Rung[], billed: number) {
  const base = FRAME.height - FRAME.bottom;
  const most = ladder.at(-1)?.up_to_g ?? 1;
  const prices = ladder.map(({ price }) => Number(price.amount));
  const x = scaleLinear([0, most], [FRAME.left, FRAME.width - FRAME.right]).clamp(true);
  // The ground is a little under the least price, so that treads that lie close are told apart.
  const y = scaleLinear([Math.min(...prices) * GROUND, Math.max(...prices, 1)], [base, FRAME.top]);
  let before = Infinity;
  const drawn: Tread[] = ladder.map((rung, at) => {
    const height = y(prices[at] ?? 0);
    const told = before - height >= APART;
    if (told) before = height;
    return {
      from: x(ladder[at - 1]?.up_to_g ?? 0),
      to: x(rung.up_to_g),
      y: height,
      price: decimals(rung.price.amount),
      told,
    };
  });
  const stands = drawn[ladder.findIndex(({ up_to_g }) => billed <= up_to_g)];
  let last = -Infinity;
  const ticks = ladder
    .map(({ up_to_g }) => ({ x: x(up_to_g), kg: String(+(up_to_g / GRAMS).toFixed(2)) }))
    .filter(({ x: place }) => {
      const told = place - last >= 2 * APART;
      if (told) last = place;
      return told;
    });
  return {
    drawn,
    ticks,
    base,
    at: stands && { x: x(billed), y: stands.y, from: stands.from, to: stands.to },
  };
}

const ALONG = {
  across: 'off the width',
  up: 'off the height',
  through: 'off the depth',
  mass: 'lighter',
} as const;
/** What is a whole number but for the dust of binary fractions is that number. */
const DUST = 1e-9;

/** A length or a mass: what is to come off rounded up, what there is room for rounded down. */
export function amountWords(
  mm: number | null | undefined,
  g: number | null | undefined,
  up: boolean,
  units: Units,
): string {
  const whole = (value: number) => (up ? Math.ceil(value - DUST) : Math.floor(value + DUST));
  if (mm != null) return units.length(units.unit.value === 'mm' ? whole(mm) : mm);
  return kilograms(whole(g ?? 0));
}

/** How much less it takes, as `9 mm off the depth`. */
export function lessWords(step: Step, units: Units): string {
  return `${amountWords(step.less_mm, step.less_g, true, units)} ${ALONG[step.along]}`;
}
