// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { describe, expect, it } from 'vitest';

import type { Plan } from '@/api/types';
import { shipment } from '@/test/server';

import WholeCut from './WholeCut.vue';

const plan = shipment().worked.plan as Plan;
const cut = (ghost: Plan) =>
  mount(WholeCut, { props: { plan, ghost, cut: 'up', times: 1, barred: true } }).findAll(
    '[data-test="ghost"]',
  ).length;

describe('a plan that is not taken yet', () => {
  it('is outlined where it differs, and around its outside at both ends', () => {
    const turned = plan.layers.map((layer) => ({
      ...layer,
      adds: Object.fromEntries(Object.entries(layer.adds).toReversed()) as typeof layer.adds,
    }));
    expect(cut({ ...plan, layers: turned })).toBe(2);
    const thicker = turned.map((layer) =>
      layer.slot === 'first_wrap' ? { ...layer, adds: { ...layer.adds, front_mm: 30 } } : layer,
    );
    expect(cut({ ...plan, layers: thicker })).toBeGreaterThan(2);
    expect(cut({ ...plan, layers: thicker })).toBeLessThan(12);
  });
});
