import { describe, expect, it } from 'vitest';

import { saveState } from './figures';
import { begin } from './machine';
import type { Open } from './machine';

const opened = (more: Partial<Open>): Open => ({ ...begin('one', true)[0], ...more });

describe('how far a shipment is saved', () => {
  it('is told by what is in the way', () => {
    const typed = { title: 'Slack Tide' };
    expect(saveState(opened({}))).toBe('saved');
    expect(saveState(opened({ typed }))).toBe('waiting');
    expect(saveState(opened({ typed, waiting: true }))).toBe('saving');
    expect(saveState(opened({ typed, errors: { title: 'no' } }))).toBe('refused');
    expect(saveState(opened({ typed, away: 'the server can’t be reached' }))).toBe('unreachable');
    expect(saveState(opened({ phase: 'missing' }))).toBe('missing');
  });

  it('counts a text that is no value, but not a reason that is half written', () => {
    expect(saveState(opened({ texts: { size: '35 by some' } }))).toBe('refused');
    expect(saveState(opened({ texts: { 'reason.cure': 'The buyer' } }))).toBe('saved');
  });
});
