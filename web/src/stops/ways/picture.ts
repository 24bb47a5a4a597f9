// Where ways lie: safer is up, cheaper is left.
import { scaleLinear, scaleLog } from 'd3-scale';

import type { Front, Way } from '@/api/types';

export const FRAME = { width: 940, height: 360, left: 84, right: 20, top: 18, bottom: 44 } as const;

/** Ways further out than this share of them are drawn at the edge. */
const FAR = 0.97;
const MOST_TICKS = 5;
/** Odds that are said at the side, where they lie within the picture. */
const SAID = [10, 20, 30, 60, 120, 240, 500, 1000, 2000, 5000, 10_000];

export interface Dot {
  key: string;
  x: number;
  y: number;
}

export function wayKey(way: Way): string {
  return `${way.service} ${way.parts.join(';')}`;
}

/** The way in a few words: what is otherwise, and who carries it. */
export function wayWords(way: Way): string {
  if (way.is_now) return `This plan, by ${way.carrier} ${way.service_name}`;
  const parts = way.parts.join(', ');
  const said = parts ? parts.charAt(0).toUpperCase() + parts.slice(1) : 'Packed as it is';
  return `${said}, by ${way.carrier} ${way.service_name}`;
}

export function picture(front: Front) {
  const costs = [
    ...front.ways.map(({ cost }) => Number(cost.amount)),
    ...front.others.map(({ cost }) => Number(cost)),
  ].toSorted((one, other) => one - other);
  const abouts = [...front.ways.map(({ odds }) => odds.about), ...front.others.map(({ about }) => about)];
  const most = Math.max(
    costs[Math.floor((costs.length - 1) * FAR)] ?? 1,
    ...front.ways.filter(({ leads, is_now }) => leads || is_now).map(({ cost }) => Number(cost.amount)),
  );
  const x = scaleLinear([costs[0] ?? 0, most], [FRAME.left + 12, FRAME.width - FRAME.right]).clamp(true);
  const [low, high] = [Math.min(...abouts, 1e9), Math.max(...abouts, 1)];
  const y = scaleLog([low * 0.9, high * 1.1], [FRAME.height - FRAME.bottom, FRAME.top]).clamp(true);
  const dot = (cost: string, about: number) => ({ x: x(Number(cost)), y: y(about) });
  const placed = (way: Way) => ({ way, key: wayKey(way), ...dot(way.cost.amount, way.odds.about) });
  return {
    others: front.others.map(({ cost, about }, at) => ({ key: String(at), ...dot(cost, about) })),
    leading: front.ways.filter(({ leads }) => leads).map(placed),
    rest: front.ways.filter(({ leads, is_now }) => !leads && !is_now).map(placed),
    now: front.ways.filter(({ is_now }) => is_now).map(placed),
    costs: x.ticks(MOST_TICKS).map((cost) => ({ x: x(cost), says: cost.toFixed(0) })),
    odds: SAID.filter((about) => about >= low * 0.9 && about <= high * 1.1).map((about) => ({
      y: y(about),
      says: `1 in ${String(about)}`,
    })),
  };
}
