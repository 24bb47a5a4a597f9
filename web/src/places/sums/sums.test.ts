import { describe, expect, it } from 'vitest';

import description from '../../../../docs/openapi.json';

import { figure } from './figures';
import { partOf } from './sum';
import { SUMS } from './sums';

type Schema = { properties?: Record<string, unknown>; required?: string[] };
const paths = description.paths as Record<
  string,
  { post?: { requestBody?: { content: { 'application/json': { schema: { $ref: string } } } } } }
>;
const schemas = description.components.schemas as Record<string, Schema>;
const units = { unit: { value: 'mm' }, length: (mm: number) => `${mm}` } as never;

describe('quick sums', () => {
  it('ask for what the server asks for', () => {
    for (const { name, path = name, asks, nested } of SUMS) {
      expect(paths[`/api/v1/sums/${path}`]?.post, name).toBeDefined();
      if (nested) continue;
      const body = paths[`/api/v1/sums/${path}`]?.post?.requestBody;
      const schema = schemas[body?.content['application/json'].schema.$ref.split('/').at(-1) ?? ''];
      const asked = asks.map(({ key }) => key);
      expect([name, asked.filter((key) => !(key in (schema?.properties ?? {})))]).toEqual([name, []]);
      const needed = (schema?.required ?? []).filter((key) => key !== 'style' && !asked.includes(key));
      expect([name, needed]).toEqual([name, []]);
    }
  });

  it('begin a shipment with what they know of the piece', () => {
    const begun = (name: string, numbers: Record<string, number | null>) =>
      SUMS.find((sum) => sum.name === name)?.piece(numbers);
    expect(begun('contact-sheet', { width_mm: 450, height_mm: 1200, depth_mm: null })).toEqual({
      width: '450 mm',
      height: '1200 mm',
      depth: '',
    });
    expect(begun('cushion', { mass_kg: 3.2, limit_g: null })).toEqual({ weight: '3.2 kg', limit_g: null });
  });
});

describe('a figure', () => {
  it('is rounded for the eye, and says when there is none', () => {
    const told = { survives_mm: null, best: { area_cm2: 226.36 }, outer_mm: 53.77, governs: 'volumetric' };
    const shown = (key: string, kind: string, none?: string) =>
      figure(told, { key, label: '', kind: kind as never, none }, units);
    expect(shown('outer_mm', 'mm')).toBe('53.8\u00a0mm');
    expect(shown('best.area_cm2', 'cm2')).toBe('226\u00a0cm²');
    expect(shown('survives_mm', 'mm', 'too much area')).toBe('too much area');
    expect(shown('governs', 'words')).toBe('size');
    expect(partOf(told, 'best.nothing')).toBeUndefined();
  });
});
