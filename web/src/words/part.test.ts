import { describe, expect, it } from 'vitest';

import { isTape, keyOf } from './part';

describe('the part of a layer', () => {
  it('is known by its key, and by its name where it left before there were keys', () => {
    expect(keyOf({ part: 'fill', name: 'loose fill' })).toBe('fill');
    expect(keyOf({ name: 'back board' })).toBe('back board');
  });
  it('is tape by its key, whatever it is called', () => {
    expect(isTape({ part: 'tape for the pad behind', name: 'strips' })).toBe(true);
    expect(isTape({ part: 'patch', name: 'tape patch' })).toBe(false);
  });
});
