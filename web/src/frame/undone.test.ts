// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';

import { changedFields, namedFields } from './undone';

describe('what an undo changed', () => {
  it('finds each field that differs, also one that is there only before or only after', () => {
    const before = { title: 'Gorse', piece: { width: '40 cm', count: 2 }, packed: {} };
    const now = { title: 'Gorse', piece: { width: '50 cm' }, gift: true };
    expect(changedFields(before, now)).toEqual(['piece.width', 'piece.count', 'gift']);
    expect(changedFields(before, before)).toEqual([]);
  });

  it('reads null and a missing field as the same', () => {
    expect(changedFields({ promised: null }, {})).toEqual([]);
  });

  it('names up to three fields, and counts the rest', () => {
    expect(namedFields(['piece.width'])).toBe('the width');
    expect(namedFields(['piece.width', 'gift'])).toBe('the width and whether it is a gift');
    expect(namedFields(['packed.a.at', 'packed.a.print'])).toBe('what was ticked at Pack');
    expect(namedFields(['piece.width', 'piece.height', 'piece.depth', 'gift', 'title'])).toBe(
      'the width, the height, the depth and two more fields',
    );
    expect(namedFields(['lifted_for.cure', 'lifted.cure'])).toBe('a Stop that was lifted');
  });
});
