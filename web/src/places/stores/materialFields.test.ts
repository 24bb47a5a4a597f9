// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { describe, expect, it } from 'vitest';

import CurveFields from './CurveFields.vue';
import MaterialField from './MaterialField.vue';
import SheetList from './SheetList.vue';
import { SHELVES } from './shelves';
import type { Field, Material } from './shelves';

const contact = SHELVES.find(({ name }) => name === 'Contact layers');
const field = (key: string): Field => {
  const found = contact?.fields.find((one) => one.key === key);
  if (!found) throw new Error(`contact layers have ${key}`);
  return found;
};
const tissue = { id: 'tissue', name: 'Tissue', may_touch: ['oil'], plastic: false } as unknown as Material;

function shown(key: string, material: Material = tissue, errors: Record<string, string> = {}) {
  return mount(MaterialField, { props: { field: field(key), material, errors } });
}

describe('a field of a material', () => {
  it('is ticked word by word, and says all that are', async () => {
    const mounted = shown('may_touch');
    await mounted.get('input[value="acrylic"]').setValue(true);
    expect(mounted.emitted('set')?.[0]).toEqual(['may_touch', ['oil', 'acrylic']]);
    await mounted.get('input[value="oil"]').setValue(false);
    const said = mounted.emitted('set')?.at(-1) as [string, string[]];
    expect(said[0]).toBe('may_touch');
    expect(said[1]).not.toContain('oil');
  });

  it('says yes and no, never nothing', async () => {
    const mounted = shown('plastic', { ...tissue, plastic: true } as Material);
    await mounted.get('input').setValue(false);
    expect(mounted.emitted('set')).toEqual([['plastic', false]]);
  });

  it('shows what can’t stand where it stands', () => {
    const mounted = shown('may_touch', tissue, { may_touch: 'no medium is called so' });
    expect(mounted.get('.error').text()).toBe('no medium is called so');
  });
});

describe('the sheets of a board', () => {
  const sheets = [
    { width_mm: 1600, height_mm: 1200, price: '3.10' },
    { width_mm: 2400, height_mm: 1200, price: '4.60' },
  ];
  const list = (thick: boolean, errors: Record<string, string> = {}) =>
    mount(SheetList, { props: { sheets, thick, errors } });

  it('are changed one by one, the others as they were', async () => {
    const mounted = list(false);
    const second = mounted.findAll('.sheet')[1];
    await second?.findAll('input')[0]?.setValue('2500,5');
    expect(mounted.emitted('set')?.[0]).toEqual([[sheets[0], { ...sheets[1], width_mm: 2500.5 }]]);
    await second?.findAll('input')[2]?.setValue('5.00');
    expect(mounted.emitted('set')?.[1]).toEqual([[sheets[0], { ...sheets[1], price: '5.00' }]]);
  });

  it('are added and dropped', async () => {
    const mounted = list(true);
    await mounted.findAll('button').at(-1)?.trigger('click');
    const [added] = mounted.emitted('set')?.[0] as [typeof sheets];
    expect(added).toHaveLength(3);
    expect(added[2]).toMatchObject({ thickness_mm: 25 });
    await mounted.findAll('.sheet')[0]?.get('button').trigger('click');
    expect(mounted.emitted('set')?.[1]).toEqual([[sheets[1]]]);
  });

  it('have a thickness only where it is the sheet’s own, and say which is refused', () => {
    expect(list(false).text()).not.toContain('Thickness');
    expect(list(true).text()).toContain('Thickness');
    const wrong = list(false, { 'sheets.1.width_mm': 'it must be from 50 mm' });
    const rows = wrong.findAll('.sheet');
    expect(rows[0]?.find('.error').exists()).toBe(false);
    expect(rows[1]?.get('.error').text()).toBe('it must be from 50 mm');
  });
});

describe('the curve of a cushion', () => {
  const curve = { a_kpa: 25, b_m3_per_kj: 0.05, creep_kpa: 4 };
  const fields = (more: object = {}) =>
    mount(CurveFields, { props: { curve, optional: true, errors: {}, ...more } });

  it('is given, changed part by part, and taken away where it may be', async () => {
    const none = fields({ curve: undefined });
    await none.get('button').trigger('click');
    expect(none.emitted('set')?.[0]).toEqual([{ a_kpa: 25, b_m3_per_kj: 0.05 }]);
    const mounted = fields();
    await mounted.get('[name="material.curve.b_m3_per_kj"]').setValue('0.075');
    expect(mounted.emitted('set')?.at(-1)).toEqual([{ ...curve, b_m3_per_kj: 0.075 }]);
    await mounted.get('button').trigger('click');
    expect(mounted.emitted('set')?.at(-1)).toEqual([undefined]);
    expect(fields({ optional: false }).find('button').exists()).toBe(false);
  });

  it('loses a part that is emptied, rather than holding it at nothing', async () => {
    const mounted = fields();
    await mounted.get('[name="material.curve.creep_kpa"]').setValue('');
    expect(mounted.emitted('set')?.at(-1)).toEqual([{ a_kpa: 25, b_m3_per_kj: 0.05 }]);
  });

  it('says at its first part what holds of the whole curve', () => {
    const mounted = fields({ errors: { curve: 'e·a·b is 2.1, under 2.7' } });
    expect(mounted.get('.error').text()).toBe('e·a·b is 2.1, under 2.7');
  });
});
