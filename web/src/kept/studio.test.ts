// @vitest-environment happy-dom
import { beforeEach, expect, it, vi } from 'vitest';

beforeEach(() => {
  localStorage.clear();
  vi.resetModules();
});

it('what was typed before the studio was known goes over to it, and another studio sees none of it', async () => {
  localStorage.setItem('hummock.typed.seven.window', '{"typed":1}');
  const { heardFrom, ofStudio, studioShown } = await import('./studio');
  const another = vi.fn();
  heardFrom('herons', another);
  expect(another).not.toHaveBeenCalled();
  expect(localStorage.getItem(ofStudio('typed.seven.window'))).toBe('{"typed":1}');
  expect(localStorage.getItem('hummock.typed.seven.window')).toBeNull();
  heardFrom('herons', another);
  heardFrom(null, another);
  expect(another).not.toHaveBeenCalled();
  // The same browser, with another studio at the same address.
  heardFrom('terns', another);
  expect(another).toHaveBeenCalledOnce();
  expect(studioShown()).toBe('terns');
  expect(localStorage.getItem(ofStudio('typed.seven.window'))).toBeNull();
});

it('a page that is opened again knows whose it was', async () => {
  const { heardFrom } = await import('./studio');
  heardFrom('herons');
  vi.resetModules();
  const again = await import('./studio');
  expect(again.ofStudio('unit')).toBe('hummock.herons.unit');
});
