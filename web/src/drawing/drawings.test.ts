// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';

import CradleDrawing from './CradleDrawing.vue';
import MeasureDrawing from './MeasureDrawing.vue';
import ParcelField from './ParcelField.vue';
import PocketDrawing from './PocketDrawing.vue';

/** What is drawn has a size, and lies within what it is drawn in. */
function wellDrawn(html: string): void {
  const numbers = [...html.matchAll(/ (?:width|height|r|rx|ry)="([^"]+)"/g)].map(([, text]) => Number(text));
  expect(numbers.filter((number) => !(number >= 0))).toEqual([]);
  expect(html).not.toContain('NaN');
  expect(html).not.toContain('Infinity');
}

describe('the pocket’s blank', () => {
  const lengths = [
    ...[
      [0, 0],
      [159, 0],
      [159, 62],
      [94, 62],
      [94, 98],
    ],
    ...[
      [65, 98],
      [65, 98],
      [62, 98],
      [62, 163],
      [0, 163],
    ],
  ];
  const pocket = {
    kind: 'card_pockets',
    leg_mm: 65,
    wall_a_mm: 29,
    wall_b_mm: 33,
    blank_a_mm: 159,
    blank_b_mm: 163,
    tab_mm: 29,
    flap_trim_mm: 3,
    lines: {
      cut_mm: lengths,
      scores_mm: [
        [
          [65, 0],
          [65, 65],
        ],
      ],
      slit_mm: [
        [65, 65],
        [65, 98],
      ],
    },
  };

  it('is drawn by the core’s lines, at one scale, and says its figures', () => {
    const drawn = mount(PocketDrawing, { props: { pocket: pocket as never } });
    const points = drawn.get('polygon').attributes('points')?.split(' ') ?? [];
    expect(points).toHaveLength(lengths.length);
    // 163 mm fill 150 units, from 8 below the top: 159 mm are 159 × 150/163 = 146.32 across.
    const [x, y] = (points[1] ?? '').split(',').map(Number);
    expect(x).toBeCloseTo(8 + (159 * 150) / 163, 6);
    expect(y).toBeCloseTo(8 + 150, 6);
    expect(drawn.get('svg').attributes('aria-label')).toContain('159\u202f×\u202f163\u00a0mm');
    expect(drawn.get('svg').attributes('aria-label')).toContain('leg 65\u00a0mm');
    // The tab is cut free of wall B, from the corner of the face: 65 × 150/163 across, 98 up.
    const slit = drawn.get('.slit').attributes('d') ?? '';
    const [from, to] = slit.slice(1).split('L');
    expect(from?.split(',').map(Number)[0]).toBeCloseTo(8 + (65 * 150) / 163, 6);
    expect(to?.split(',').map(Number)[1]).toBeCloseTo(8 + ((163 - 98) * 150) / 163, 6);
  });
});

describe('the board with its chocks', () => {
  const chock = {
    corners_mm: [
      [537, 537],
      [565, 565],
      [512, 618],
      [484, 590],
    ],
  };
  const cradle = { width_mm: 650, height_mm: 650, left_mm: 25, below_mm: 25, chocks: [chock] };

  it('has the piece by its outline and every chock by the core’s corners', () => {
    const drawn = (outline: string) =>
      mount(CradleDrawing, { props: { cradle: cradle as never, outline, width: 600, height: 600 } });
    const round = drawn('round');
    wellDrawn(round.html());
    expect(round.findAll('.chock')).toHaveLength(1);
    // 650 mm fill 260 units of height, from 8 below the top: 537 mm up are 113 × 260/650 = 45.2 below it.
    const [corner] = round.get('.chock').attributes('points')?.split(' ') ?? [];
    expect(Number(corner?.split(',')[1])).toBeCloseTo(8 + 45.2, 6);
    expect(round.find('ellipse').exists()).toBe(true);
    expect(drawn('polygon').find('ellipse').exists()).toBe(false);
    wellDrawn(drawn('arched').html());
  });
});

describe('the piece as it is measured', () => {
  const piece = { construction: 'framed_under_glass', outline: 'oval', count: 60, hardware: '' };

  it('is well drawn however thin, long or deep it is', () => {
    const length = fc.double({ min: 1, max: 3000, noNaN: true });
    const outline = fc.constantFrom('rectangle', 'oval', 'arched', 'round', 'polygon', 'irregular');
    fc.assert(
      fc.property(length, length, length, outline, (width_mm, height_mm, depth_mm, outline) => {
        const size = { width_mm, height_mm, depth_mm };
        const props = { size, piece: { ...piece, outline }, bearing: [{ across: 0.5, up: 0 }] };
        wellDrawn(mount(MeasureDrawing, { props }).html());
      }),
      { numRuns: 200 },
    );
  });

  it('is drawn by its box where the corners of a polygon are not known', () => {
    const size = { width_mm: 300, height_mm: 400, depth_mm: 20 };
    const face = (corners: object[]) =>
      mount(MeasureDrawing, { props: { size, piece: { ...piece, outline: 'polygon' }, corners } as never })
        .get('.face')
        .attributes('d');
    expect(face([])).toMatch(/^M.*H.*V.*H.*Z$/);
    const corner = (across: number, up: number) => ({ across, up });
    expect(face([corner(0, 0), corner(1, 0), corner(0.5, 1)])?.match(/L/g)).toHaveLength(2);
  });

  it('says its size, or that it has none yet', () => {
    const size = { width_mm: 300, height_mm: 400, depth_mm: 20 };
    const says = (props: object) =>
      mount(MeasureDrawing, { props: { piece, ...props } })
        .get('svg')
        .attributes('aria-label');
    expect(says({ size })).toContain('300\u202f×\u202f400\u202f×\u202f20\u00a0mm');
    expect(says({})).toContain('not measured yet');
  });
});

describe('the field of parcels', () => {
  it('is whole rows of parcels, and says how many', () => {
    const drawn = mount(ParcelField, { props: { oneIn: 390 } });
    expect(drawn.get('svg').attributes('aria-label')).toBe('400 parcels, 1 of them damaged');
  });
});
