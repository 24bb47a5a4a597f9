import { describe, expect, it } from 'vitest';

import catalogue from '../../../../demo/catalogue.json';

import { emptyMaterial, partOf, SHELF_FIELDS, SHELVES, withPart } from './shelves';
import type { Material } from './shelves';

const shelf = (key: string) => SHELVES.find((one) => one.key === key);

describe('the shelves', () => {
  it('are those of the catalogue, and know every field of its materials', () => {
    const shelves = Object.fromEntries(Object.entries(catalogue).filter(([key]) => key !== 'currency'));
    expect(SHELVES.map(({ key }) => key).toSorted()).toEqual(Object.keys(shelves).toSorted());
    for (const [key, materials] of Object.entries(shelves)) {
      const known = new Set(['id', 'name', 'shelf', ...(shelf(key)?.fields.map((field) => field.key) ?? [])]);
      const found = new Set((materials as object[]).flatMap((material) => Object.keys(material)));
      expect([key, [...found].filter((field) => !known.has(field))]).toEqual([key, []]);
    }
  });
});

describe('a material', () => {
  const glassine: Material = { id: 'glassine', name: 'Glassine', shelf: { stock: 48, supplier: 'Reedmace' } };

  it('is changed part by part, and left as it was', () => {
    const less = withPart(glassine, 'shelf.stock', 40);
    expect(partOf(less, 'shelf.stock')).toBe(40);
    expect(partOf(less, 'shelf.supplier')).toBe('Reedmace');
    expect(partOf(glassine, 'shelf.stock')).toBe(48);
  });

  it('loses a part that is emptied', () => {
    expect(withPart(glassine, 'shelf.stock', undefined).shelf).toEqual({ supplier: 'Reedmace' });
    expect(withPart(glassine, 'shelf', undefined)).toEqual({ id: 'glassine', name: 'Glassine' });
  });

  it('begins with what its shelf must have', () => {
    const foam = shelf('foams');
    expect(foam && emptyMaterial(foam)).toMatchObject({
      id: '',
      sheets: [],
      sheds: false,
      curve: { a_kpa: 25 },
    });
    expect(SHELF_FIELDS.every(({ key }) => key.startsWith('shelf.'))).toBe(true);
  });
});
