// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { describe, expect, it } from 'vitest';

import type { BatchSheet } from '@/api/types';

import CutDownDrawing from './CutDownDrawing.vue';
import SheetLayout from './SheetLayout.vue';

/** Two boards beside each other on a sheet of 1000 × 800: cut up at 600, across at 500 and at 505 on either side. */
const sheet: BatchSheet = {
  n: 4,
  width_mm: 1000,
  height_mm: 800,
  thickness_mm: null,
  price: '2.35',
  offcut: null,
  parts: [part('A1', 0, 600, 500, 0), part('B1', 600, 400, 505, 1)],
  cuts: [
    { n: 1, upright: true, at_mm: 600, from_mm: 0, to_mm: 800 },
    { n: 2, upright: false, at_mm: 500, from_mm: 0, to_mm: 600 },
    { n: 3, upright: false, at_mm: 505, from_mm: 600, to_mm: 1000 },
  ],
  rest: [
    { x_mm: 0, y_mm: 500, width_mm: 600, height_mm: 300, worth_keeping: true },
    { x_mm: 600, y_mm: 505, width_mm: 400, height_mm: 295, worth_keeping: true },
  ],
};

function part(code: string, x_mm: number, width_mm: number, height_mm: number, shipment: number) {
  return {
    code,
    shipment,
    slot: 'face_boards' as const,
    layer: 'face boards',
    name: 'board',
    x_mm,
    y_mm: 0,
    width_mm,
    height_mm,
    rotated: false,
    joined: false,
    scores_x_mm: code === 'A1' ? [100] : [],
    scores_y_mm: [],
  };
}

describe('a sheet with its parts', () => {
  const shown = () => mount(SheetLayout, { props: { sheet, kept: [0] } });

  it('lies with its lower left corner below, as it is measured', () => {
    const rects = shown().findAll('rect.part');
    // From above, 800 less 500 and less 505.
    expect(rects.map((rect) => [rect.attributes('x'), rect.attributes('y')])).toEqual([
      ['0', '300'],
      ['600', '295'],
    ]);
    const corner = shown().get('circle.corner');
    expect([corner.attributes('cx'), corner.attributes('cy')]).toEqual(['0', '800']);
  });

  it('tells shipments apart by a pattern and a code, and what is kept by a word', () => {
    const layout = shown();
    const fills = layout.findAll('rect.part').map((rect) => rect.attributes('fill'));
    expect(new Set(fills).size).toBe(2);
    expect(layout.text()).toContain('A1');
    expect(layout.text()).toContain('B1');
    expect(layout.text()).toMatch(/kept 600/);
    expect(layout.text()).toMatch(/rest 400/);
    expect(layout.findAll('line.score')).toHaveLength(1);
  });

  it('prints no number over another', () => {
    const circles = shown()
      .findAll('.number circle')
      .map((circle) => ['cx', 'cy', 'r'].map((name) => Number(circle.attributes(name))));
    expect(circles).toHaveLength(3);
    circles.forEach(([x = 0, y = 0, r = 0], at) => {
      for (const [ox = 0, oy = 0] of circles.slice(at + 1)) {
        expect(Math.hypot(x - ox, y - oy)).toBeGreaterThanOrEqual(2 * r);
      }
    });
  });
});

describe('a carton that is cut down', () => {
  it('shows the new score as far below the old one as it is, and what comes off', () => {
    // 980 × 740 × 130 of board 4, cut down to 70: scored 60 below; its flaps (740 + 4)/2 = 372 are trimmed by as much.
    const box = {
      opens: 'face' as const,
      carton_mm: [980, 740, 130] as [number, number, number],
      inside_mm: [980, 740, 70] as [number, number, number],
      caliper_mm: 4,
      cut: { below_mm: 60, flap_mm: 372, inner_flap_mm: 372, slot_mm: 6 },
      shorter: null,
      face: 'as_it_was' as const,
      sleeve: null,
      blank: {} as never,
      second: null,
      seal: [],
    };
    const drawing = mount(CutDownDrawing, { props: { box } });
    const score = drawing.get('line.score');
    expect([score.attributes('y1'), score.attributes('x2')]).toEqual(['432', String(2 * (980 + 740))]);
    const off = drawing.findAll('rect.off').map((rect) => Number(rect.attributes('height')));
    expect(off).toEqual([60, 60, 60, 60]);
    expect(drawing.attributes('aria-label')).toContain('scored anew 60');
  });

  it('shows what is cut off each of two that are pushed into each other, and where the inner one is slit', () => {
    // Two of 800 × 600 × 200 for 1200: lap 180, 220 more off the inner one, which is the first. Its end wall is 800 to
    // 1400 from the left: off from 580 to 1620; slits from 400 to 580 and from 1620 to 1800.
    const sides = [800, 600, 200] as [number, number, number];
    const join = {
      second_outside: true,
      lap_mm: 180,
      tongue_mm: 180,
      trim_mm: 5,
      take_off_mm: 220,
      depths_mm: [200, 200] as [number, number],
      inside_mm: [1200, 592, 192] as [number, number, number],
      shell_mm: [1200, 600, 200] as [number, number, number],
    };
    const box = {
      opens: 'face' as const,
      carton_mm: sides,
      inside_mm: join.inside_mm,
      caliper_mm: 4,
      cut: null,
      shorter: null,
      face: 'as_it_was' as const,
      sleeve: null,
      blank: {} as never,
      second: { carton_mm: sides, cut: null, join, blank: {} as never },
      seal: [],
    };
    const shown = (which: 'first' | 'second') => {
      const drawing = mount(CutDownDrawing, { props: { box, which } });
      const off = drawing.get('rect.off');
      const [x, wide] = ['x', 'width'].map((name) => Number(off.attributes(name)));
      const slits = drawing
        .findAll('line.slit')
        .map((slit) => ['x1', 'x2'].map((name) => Number(slit.attributes(name))));
      return { x, wide, slits };
    };
    expect(shown('first')).toEqual({
      x: 580,
      wide: 1040,
      slits: [
        [400, 580],
        [1620, 1800],
        [400, 580],
        [1620, 1800],
      ],
    });
    expect(shown('second')).toEqual({ x: 800, wide: 600, slits: [] });
  });
});
