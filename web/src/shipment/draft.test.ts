import { describe, expect, it } from 'vitest';

import {
  choose,
  draftOf,
  emptyEnclosure,
  emptyOther,
  emptyQuotation,
  inputsOf,
  beside,
  mergePatch,
  patched,
  pathsOf,
  withoutPaths,
} from './draft';
import type { Json } from './draft';

const stored = {
  title: 'Kelp Ladder',
  piece: { construction: 'stretched_canvas', width: '900 mm', paint: 'thin' },
  choices: { clearance: '12 mm' },
} as const;

describe('a draft', () => {
  it('gives back the inputs that it was made of', () => {
    const inputs = inputsOf(draftOf(stored));
    expect(inputs.piece).toMatchObject(stored.piece);
    expect(inputs.choices).toMatchObject(stored.choices);
    expect(inputs.piece).not.toHaveProperty('height');
    expect(inputs).not.toHaveProperty('service');
  });
});

describe('choices of an answer', () => {
  it('are laid over those that stand, layer by layer and school by school', () => {
    const { choices } = draftOf({ choices: { layers: { bag: true }, schools: { fit: 'snug' } } as never });
    choose(choices, { layers: { face_pads: true }, pad_thickness: '65 mm', pad_area_cm2: 155, fill: null });
    choose(choices, { schools: { corners: 'slip_on' } as never });
    expect(choices.layers).toEqual({ bag: true, face_pads: true });
    expect(choices.schools).toEqual({ fit: 'snug', corners: 'slip_on' });
    expect([choices.pad_thickness, choices.pad_area_cm2, choices.fill]).toEqual(['65 mm', 155, '']);
  });

  it('of one draft are not those of another', () => {
    const [one, other] = [draftOf({}), draftOf({})];
    choose(one.choices, { layers: { bag: true } });
    expect(other.choices.layers).toEqual({});
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

  it('sends what is empty by itself, so that nothing waits for ever', () => {
    const patch = {
      others: { p2: { title: '', piece: { width: 'wide', facts: {} }, choices: { layers: {} } } },
    };
    expect(withoutPaths(patch, [])).toEqual(patch);
    expect(withoutPaths(patch, ['others.p2.piece.width'])).toEqual({
      others: { p2: { title: '', piece: { facts: {} }, choices: { layers: {} } } },
    });
    // Whatever is sent without anything left out makes of the one what the other is.
    const before = inputsOf(draftOf(stored)) as unknown as Json;
    const draft = draftOf(stored);
    draft.others['p2'] = emptyOther();
    draft.enclosures['own-1'] = emptyEnclosure('card');
    draft.quotations['packer'] = emptyQuotation();
    const typed = inputsOf(draft) as unknown as Json;
    const sent = withoutPaths(mergePatch(before, typed) ?? null, []);
    expect(mergePatch(patched(before, sent ?? null), typed)).toBeUndefined();
  });

  it('is nothing between equals', () => {
    expect(mergePatch({ a: { b: 'c' } }, { a: { b: 'c' } })).toBeUndefined();
  });

  it('lies beside another where no value becomes two', () => {
    expect(beside({ title: 'A' }, { value: '1' })).toEqual({ title: 'A' });
    expect(beside({ title: 'A', value: '1' }, { title: 'A' })).toEqual({ value: '1' });
    expect(beside({ title: 'A' }, { title: 'B' })).toBeUndefined();
    expect(beside({ piece: { width: '1' } }, { piece: { height: '2' } })).toEqual({ piece: { width: '1' } });
    expect(beside({ piece: null }, { piece: { height: '2' } })).toBeUndefined();
    // The same step, ticked a moment later.
    const tick = (at: string, print: string) => ({ packed: { bench: { at, print } } });
    expect(beside(tick('9', 'p'), tick('8', 'p'))).toEqual({});
    expect(beside(tick('9', 'p'), tick('8', 'q'))).toBeUndefined();
    expect(beside({ packed: { bench: null } }, tick('8', 'p'))).toBeUndefined();
  });
});
