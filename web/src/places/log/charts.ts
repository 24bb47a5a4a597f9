// The charts of the log, under the same colours as everything else; a chunk of its own.
import { BarChart, CustomChart, ScatterChart } from 'echarts/charts';
import { AriaComponent, GridComponent, TooltipComponent } from 'echarts/components';
import { use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

import type { Reckoning } from '@/api/types';

use([SVGRenderer, BarChart, CustomChart, ScatterChart, GridComponent, AriaComponent, TooltipComponent]);

/** The tokens of the page, as a chart needs them. */
const token = (name: string) =>
  getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim();

const axis = (name: string) => ({
  name,
  nameLocation: 'middle' as const,
  nameGap: 28,
  nameTextStyle: { color: token('peat-soft') },
  axisLabel: { color: token('peat-soft') },
  axisLine: { lineStyle: { color: token('peat') } },
  splitLine: { lineStyle: { color: token('sedge') } },
});

const common = () => ({
  animation: false,
  aria: { enabled: true },
  textStyle: { fontFamily: 'inherit', color: token('peat') },
  grid: { left: 48, right: 16, top: 16, bottom: 44 },
});

/** What was said of the odds in each band, and what happened, with what that may stand for. */
export function oddsChart({ bands }: Reckoning) {
  const names = bands.map((band) => `${band.said_percent.toFixed(2)} %`);
  return {
    ...common(),
    xAxis: { type: 'category' as const, data: names, ...axis('said to arrive damaged') },
    yAxis: {
      type: 'value' as const,
      ...axis('of a hundred'),
      nameGap: 34,
      // The lines are no series of their own to it.
      max: Math.ceil(Math.max(1, ...bands.map((band) => band.high_percent))),
    },
    series: [
      {
        name: 'said',
        type: 'bar' as const,
        data: bands.map((band) => band.said_percent),
        itemStyle: { color: token('lichen'), borderColor: token('moss') },
        barWidth: '50%',
      },
      {
        name: 'what happened may stand for',
        type: 'custom' as const,
        data: bands.map((band, at) => [at, band.low_percent, band.high_percent]),
        renderItem: (
          _: unknown,
          to: { value: (at: number) => number; coord: (at: number[]) => number[] },
        ) => {
          const low = to.coord([to.value(0), to.value(1)]);
          const high = to.coord([to.value(0), to.value(2)]);
          const style = { stroke: token('heather'), lineWidth: 2 };
          const line = (x1: number, y1: number, x2: number, y2: number) => ({
            type: 'line' as const,
            shape: { x1, y1, x2, y2 },
            style,
          });
          const [x = 0, below = 0] = low;
          const [, above = 0] = high;
          return {
            type: 'group' as const,
            children: [
              line(x, below, x, above),
              line(x - 7, below, x + 7, below),
              line(x - 7, above, x + 7, above),
            ],
          };
        },
        z: 3,
      },
      {
        name: 'happened',
        type: 'scatter' as const,
        data: bands.map((band, at) => [at, band.happened_percent]),
        symbolSize: 12,
        itemStyle: { color: token('heather') },
        z: 4,
      },
    ],
  };
}

/** How far weights were off. */
export function weightsChart({ weights }: Reckoning) {
  return {
    ...common(),
    xAxis: {
      type: 'category' as const,
      data: weights.bins.map((bin) => `${bin.from_percent.toFixed(0)}`),
      ...axis('per cent over the plan, from'),
    },
    yAxis: { type: 'value' as const, minInterval: 1, ...axis('parcels'), nameGap: 34 },
    series: [
      {
        name: 'parcels',
        type: 'bar' as const,
        data: weights.bins.map((bin) => bin.parcels),
        itemStyle: { color: token('water') },
        barWidth: '86%',
      },
    ],
  };
}
