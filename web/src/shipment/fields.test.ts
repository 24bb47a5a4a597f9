import { describe, expect, it } from 'vitest';

import { draftOf, pathsOf } from './draft';
import type { Json } from './draft';
import { FIELDS, fieldInSentence, valueInSentence } from './fields';

describe('the registry of fields', () => {
  it('knows every field that a draft has', () => {
    // A draft in which nothing is empty names each of its fields.
    const filled = JSON.parse(
      JSON.stringify(draftOf({}), (_, value: unknown) =>
        value === null || value === '' || value === false ? 'x' : value,
      ),
    ) as Json;
    const own = [
      'lifted',
      'lifted_for',
      'settled',
      'parcel.as_packed',
      'quotations',
      'packed',
      'sending.addresses_read',
      'together',
      'enclosures',
      'choices.layers',
      'choices.schools',
    ];
    const paths = pathsOf(filled).filter((path) => path && !own.some((part) => path.startsWith(part)));
    expect(paths.toSorted()).toEqual(Object.keys(FIELDS).toSorted());
  });

  it('says fields and values as people do', () => {
    expect(fieldInSentence('piece.width')).toBe('the width');
    expect(fieldInSentence('piece.finished')).toBe('finished on');
    expect(fieldInSentence('choices.block_leg')).toBe('leg of the corner blocks');
    expect(fieldInSentence('choices.layers.face_pads')).toBe('face pads');
    expect(valueInSentence('piece.medium', 'waxed_paper')).toBe('Waxed work on paper');
    expect(valueInSentence('promised', '2027-03-04')).toBe('4 Mar 2027');
    expect(valueInSentence('piece.varnished', true)).toBe('yes');
    expect(valueInSentence('choices.set_grid', [2, 3])).toBe('2 × 3');
    expect(valueInSentence('title', '')).toBe('nothing');
    expect(valueInSentence('title', undefined)).toBe('nothing');
  });
});
