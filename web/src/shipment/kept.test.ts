// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from 'vitest';

import { keeping, pending } from './kept';
import type { Kept } from './machine';

const typed = (title: string): Kept => ({ version: 1, basis: {}, typed: { title }, texts: {} });
const nobody = () => () => undefined;
const window = (name: string) => keeping(localStorage, name, nobody);

beforeEach(() => localStorage.clear());

describe('what is kept in the browser', () => {
  it('is each window’s own, and found again by it', () => {
    window('a').keep('one', typed('from a'));
    window('b').keep('one', typed('from b'));
    expect([window('a').kept('one'), window('b').kept('one')]).toEqual([typed('from a'), typed('from b')]);
  });

  it('is taken up by another window, which lets go of it once it is stored', () => {
    window('a').keep('one', typed('left behind'));
    const later = window('b');
    expect(later.kept('one')).toEqual(typed('left behind'));
    later.keep('one', undefined);
    expect(pending(localStorage)).toEqual([]);
  });

  it('stays when its own window went on typing', () => {
    window('a').keep('one', typed('left'));
    const later = window('b');
    later.kept('one');
    window('a').keep('one', typed('left and more'));
    later.keep('one', undefined);
    expect(pending(localStorage)).toEqual([{ id: 'one', kept: typed('left and more') }]);
  });

  it('is listed for the bench, whatever else is in the box', () => {
    window('a').keep('one', typed('first'));
    window('a').keep('two', typed('second'));
    localStorage.setItem('hummock.typed.three.a', 'not JSON');
    localStorage.setItem('hummock.unit', 'mm');
    expect(
      pending(localStorage)
        .map(({ id }) => id)
        .sort(),
    ).toEqual(['one', 'two']);
    expect(window('b').kept('three')).toBeUndefined();
  });
});
