// Where things stand in a chart of bars.
import { scaleBand, scaleLinear } from 'd3-scale';

const WIDTH = 520;
const [LEFT, RIGHT, TOP, BOTTOM] = [44, 10, 10, 48];
const TICKS = 4;

export interface Chart {
  width: number;
  height: number;
  left: number;
  right: number;
  /** Where nothing stands. */
  base: number;
  ticks: { value: number; y: number }[];
  /** How high a value stands. */
  y: (value: number) => number;
  /** Each bar from left to right. */
  bars: { x: number; width: number; middle: number }[];
}

/** A chart of so many bars, up to a value; `gap` is the share of a bar's place that stays empty. */
export function chart(many: number, most: number, gap: number, height: number, whole = false): Chart {
  const base = height - BOTTOM;
  const y = scaleLinear([0, most], [base, TOP]);
  const keys = Array.from({ length: many }, (_, at) => String(at));
  const x = scaleBand(keys, [LEFT, WIDTH - RIGHT]).padding(gap);
  const values = y.ticks(TICKS).filter((value) => !whole || Number.isInteger(value));
  return {
    width: WIDTH,
    height,
    left: LEFT,
    right: WIDTH - RIGHT,
    base,
    y: (value) => y(value),
    ticks: values.map((value) => ({ value, y: y(value) })),
    bars: keys.map((key) => {
      const left = x(key) ?? 0;
      return { x: left, width: x.bandwidth(), middle: left + x.bandwidth() / 2 };
    }),
  };
}
