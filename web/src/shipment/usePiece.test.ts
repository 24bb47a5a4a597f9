// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';

import { fieldInSentence, stopOfField } from './fields';
import { draftOf, emptyOther, inputsOf, mergePatch } from './draft';
import type { Json } from './draft';
import { pathIn } from './usePiece';

describe('one of several pieces', () => {
  it('has its fields named by it, but what is the shipment’s', () => {
    expect(pathIn('first', 'piece.width')).toBe('piece.width');
    expect(pathIn('p2', 'piece.width')).toBe('others.p2.piece.width');
    expect(pathIn('p2', 'title')).toBe('others.p2.title');
    expect(pathIn('p2', 'buyer.name')).toBe('buyer.name');
  });

  it('is told in words and at its stop', () => {
    expect(fieldInSentence('others.p2.piece.width')).toBe('the width of another piece');
    expect(stopOfField('others.p2.piece.width')).toBe('measure');
    expect(stopOfField('others.p2.choices.layers')).toBe('guard');
    expect(stopOfField('together.order')).toBe('guard');
  });

  it('comes back from what is stored as it was typed, and goes with one patch', () => {
    const draft = draftOf({ title: 'Kelp Ladder' });
    const before = inputsOf(draft) as unknown as Json;
    const other = emptyOther();
    other.title = 'Slack Water';
    other.piece.width = '400 mm';
    other.choices.layers['corners'] = false;
    draft.others['p2'] = other;
    draft.together.order = [{ piece: 'p2', faces_front: true, beside: false }];
    const typed = inputsOf(draft);
    expect(inputsOf(draftOf(typed))).toEqual(typed);
    Reflect.deleteProperty(draft.others, 'p2');
    draft.together.order = null;
    expect(mergePatch(before, inputsOf(draft) as unknown as Json)).toBeUndefined();
    expect(mergePatch(typed as unknown as Json, inputsOf(draft) as unknown as Json)).toEqual({
      others: { p2: null },
      together: { order: null },
    });
  });
});
