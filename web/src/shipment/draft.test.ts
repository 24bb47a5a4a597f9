import { describe, expect, it } from 'vitest';

import { draftOf, inputsOf, mergePatch, patched, pathsOf, withoutPaths } from './draft';
import type { Json } from './draft';

const stored = {
  title: 'Kelp Ladder',
  piece: { construction: 'stretched_canvas', width: '900 mm', paint: 'thin' },
  choices: { clearance: '12 mm' },
} as const;

describe('a draft', () => {
  it('gives back the inputs that it was made of', () => {
    const inputs = inputsOf(draftOf(stored));
    expect(inputs.piece).toEqual(stored.piece);
    expect(inputs.choices).toEqual(stored.choices);
    expect(inputs).not.toHaveProperty('service');
  });
});

describe('a merge patch', () => {
  it('takes away what was emptied and leaves the rest alone', () => {
    const draft = draftOf(stored);
    const before = inputsOf(draft) as Json;
    draft.choices.clearance = '';
    draft.piece.width = '35 1/2 in';
    const patch = mergePatch(before, inputsOf(draft) as Json);
    expect(patch).toEqual({ piece: { width: '35 1/2 in' }, choices: { clearance: null } });
  });

  it('laid over the old value gives the new one', () => {
    const from: Json = { a: 1, b: { c: 'x', d: 'y' }, e: 'z' };
    const to: Json = { a: 2, b: { c: 'x' }, f: { g: 'new' } };
    const patch = mergePatch(from, to);
    expect(patch).toEqual({ a: 2, b: { d: null }, e: null, f: { g: 'new' } });
    expect(patched(from, patch ?? null)).toEqual(to);
    expect(pathsOf(patch ?? null)).toEqual(['a', 'b.d', 'e', 'f.g']);
  });

  it('can leave out what was refused', () => {
    const patch: Json = { title: 'New', piece: { width: 'wide', height: '900 mm' } };
    expect(withoutPaths(patch, ['piece.width'])).toEqual({ title: 'New', piece: { height: '900 mm' } });
    expect(withoutPaths({ piece: { width: 'wide' } }, ['piece.width'])).toBeUndefined();
  });

  it('is nothing between equals', () => {
    expect(mergePatch({ a: { b: 'c' } }, { a: { b: 'c' } })).toBeUndefined();
  });
});
