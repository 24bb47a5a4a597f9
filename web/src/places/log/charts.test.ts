// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { describe, expect, it } from 'vitest';

import type { Reckoning } from '@/api/types';

import OddsBars from './OddsBars.vue';
import WeightBars from './WeightBars.vue';

const band = (said: number, happened: number, low: number, high: number) =>
  ({
    said_percent: said,
    happened_percent: happened,
    low_percent: low,
    high_percent: high,
  }) as Reckoning['bands'][number];

describe('the charts of the log', () => {
  it('draw what was said as a bar, what happened as a dot, and its range as a line', () => {
    // To four of a hundred, 192 high: 1 is a bar of 48, 2 lies at 202 − 96 = 106.
    const drawn = mount(OddsBars, { props: { bands: [band(1, 2, 0.5, 4), band(3, 0, 0, 3.5)] } });
    const bars = drawn.findAll('.said').map((bar) => Number(bar.attributes('height')));
    expect(bars).toEqual([48, 144]);
    expect(drawn.findAll('.happened').map((dot) => Number(dot.attributes('cy')))).toEqual([106, 202]);
    expect(drawn.findAll('.range')[0]?.attributes('d')).toContain('178V10');
  });

  it('draw as many parcels as were off by so much, with whole numbers beside them', () => {
    const bins = [2, 4, 0].map((parcels, at) => ({ from_percent: at * 5 - 5, to_percent: at * 5, parcels }));
    const drawn = mount(WeightBars, { props: { bins } });
    const heights = drawn.findAll('.bar').map((bar) => Number(bar.attributes('height')));
    expect(heights).toEqual([81, 162, 0]);
    expect(drawn.findAll('text').map((text) => text.text())).toEqual(
      expect.arrayContaining(['-5', '0', '5', '4']),
    );
  });
});
