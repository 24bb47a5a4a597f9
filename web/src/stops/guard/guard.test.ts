// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';

import { read } from '@/api/queries';
import type { HazardOdds, OfferedChange, Survival } from '@/api/types';
import { shipment } from '@/test/server';

import ChangeRow from './ChangeRow.vue';
import HazardBars from './HazardBars.vue';
import SurvivalBars from './SurvivalBars.vue';

afterEach(() => read.clear());

const plan = shipment().worked.plan;
if (!plan) throw new Error('the demo canvas has a plan');

describe('what could harm it', () => {
  it('is a table of the hazards with their share, and how each compares in words', () => {
    const hazards = plan.odds.hazards.map((one, at) => ({ ...one, ratio: at === 0 ? 1 : 2 }));
    const mounted = mount(HazardBars, { props: { hazards } });
    const rows = mounted.findAll('tbody tr');
    // The first is as Standard, and told in one line with whatever else is.
    const told = hazards.slice(1);
    expect(rows.map((row) => row.attributes('data-hazard'))).toEqual(told.map(({ kind }) => kind));
    expect(rows.map((row) => row.get('td').text())).toEqual(
      told.map(({ share }) => `${(share * 100).toFixed(0)} %`),
    );
    expect(mounted.get('[data-test="as-standard"]').text()).toBe('As Standard: flat falls (15 %).');
    expect(mounted.findAll('thead th')).toHaveLength(3);
  });

  it('draws twice as likely a fifth of the bar to the right, half as likely to the left, and never past its ends', () => {
    const [first] = plan.odds.hazards;
    if (!first) throw new Error('there is a hazard');
    const hazard = (ratio: number | null): HazardOdds => ({ ...first, ratio });
    const fill = (ratio: number | null) => {
      const mounted = mount(HazardBars, { props: { hazards: [hazard(ratio)] } });
      const { left, width } = (mounted.get('.fill').element as HTMLElement).style;
      return [left, width, mounted.get('.fill').classes('safer')];
    };
    // log₂ 2 = 1, at 20 % each; log₂ ½ = −1; log₂ 64 = 6 would be 120 %, and half of the bar is 50.
    expect(fill(2)).toEqual(['50%', '20%', false]);
    expect(fill(0.5)).toEqual(['30%', '20%', true]);
    expect(fill(64)).toEqual(['50%', '50%', false]);
    expect(fill(1 / 64)).toEqual(['0%', '50%', true]);
    expect(fill(null)).toEqual(['50%', '0%', false]);
  });
});

describe('a change that is offered', () => {
  const money = (amount: string) => ({ amount, currency: 'EUR' });
  const offered = {
    label: 'Another turn of the second wrap',
    family: 'wrap',
    choices: {},
    cost: money('2.10'),
    saves: money('0.16'),
    remedy_for: null,
    priced: true,
    crosses_step: false,
    mass_g: 60.4,
    minutes: 2.2,
    odds_after: { about: 460, from: 220, to: 1300 },
  } as unknown as OfferedChange;
  const row = (more: object = {}) => mount(ChangeRow, { props: { offered: { ...offered, ...more } } });

  it('says what it costs, what it is worth, and what comes with it', () => {
    const mounted = row();
    expect(mounted.get('.cost').text()).toBe('+2.10');
    expect(mounted.get('.worth').text()).toBe('saves 0.16 EUR of expected damage a parcel');
    expect(mounted.get('.worth').classes('pays')).toBe(false);
    expect(mounted.get('.odds').text()).toBe('1 in 460');
    expect(mounted.get('.also').text()).toBe('+60\u00a0g, +2\u00a0min');
  });

  it('names the hazard that it is done against, and a step of the price', () => {
    const mounted = row({ remedy_for: 'pierced', crosses_step: true });
    expect(mounted.get('.name').text()).toContain('reduces the main risk: pierced');
    expect(mounted.get('.name').text()).toContain('moves to the next price band');
  });

  it('is marked where it pays, and says what a saving risks', () => {
    expect(
      row({ saves: money('3.00') })
        .get('.worth')
        .classes('pays'),
    ).toBe(true);
    const less = row({ cost: money('-4.20'), saves: money('-0.75') });
    expect(less.get('.cost').text()).toBe('−4.20');
    expect(less.get('.worth').text()).toBe('adds 0.75 EUR of expected damage a parcel');
  });

  it('keeps quiet about grams that nobody feels, and about a worth without a value', () => {
    const mounted = row({ saves: null, mass_g: 0.4, minutes: 0.2 });
    expect(mounted.find('.also').exists()).toBe(false);
    expect(mounted.get('.worth').text()).toBe('no value given');
  });

  it('is pressed anywhere on its row', async () => {
    const mounted = row();
    await mounted.get('button').trigger('click');
    expect(mounted.emitted('press')).toHaveLength(1);
  });
});

describe('what it survives', () => {
  const { survival } = plan;

  it('is a bar for each fall, which ends where the core’s height does', () => {
    const mounted = mount(SurvivalBars, { props: { survival } });
    const rows = mounted.findAll('[data-fall]');
    expect(rows).toHaveLength(survival.falls.length);
    survival.falls.forEach(({ survives_mm, customary_mm, passes }, at) => {
      const share = Math.min(survives_mm / customary_mm, 1.4) / 1.4;
      const bar = rows[at]?.get('.fill');
      expect(parseFloat((bar?.element as HTMLElement).style.width)).toBeCloseTo(share * 100, 3);
      expect(bar?.classes('meets')).toBe(passes);
    });
  });

  it('leads to the layer that gives out first, where a fall is not met', async () => {
    const [fall, ...rest] = survival.falls;
    if (!fall) throw new Error('there is a fall');
    const short: Survival = {
      ...survival,
      falls: [{ ...fall, passes: false, change_first: 'first_wrap' }, ...rest],
    };
    const mounted = mount(SurvivalBars, { props: { survival: short } });
    await mounted.get('.first button').trigger('click');
    expect(mounted.emitted('look')?.[0]).toEqual(['first_wrap']);
  });

  it('says of loose sheets that no shock breaks them', () => {
    const mounted = mount(SurvivalBars, { props: { survival: { ...survival, falls: [] } } });
    expect(mounted.text()).toContain('nothing that a shock would break');
  });
});
