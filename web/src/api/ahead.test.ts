import { afterEach, describe, expect, it, vi } from 'vitest';

import { answerAhead, askAhead, forgetAhead } from './ahead';

const STUDIO = '/api/v1/studio';
const question = (path: string, method = 'GET') =>
  new Request(new URL(path, 'http://hummock.test'), { method });

afterEach(() => {
  forgetAhead();
  vi.unstubAllGlobals();
});

describe('what is asked ahead', () => {
  it('is taken once, by whoever asks the same', async () => {
    const fetched = vi.fn(() => Promise.resolve(new Response('kept')));
    vi.stubGlobal('fetch', fetched);
    askAhead([STUDIO]);
    expect(answerAhead(question(`${STUDIO}?other`))).toBeUndefined();
    expect(answerAhead(question(STUDIO, 'DELETE'))).toBeUndefined();
    const answer = await answerAhead(question(STUDIO));
    expect(await answer?.text()).toBe('kept');
    expect(answerAhead(question(STUDIO))).toBeUndefined();
    expect(fetched).toHaveBeenCalledOnce();
  });

  it('is nobody’s once the first view stands', () => {
    vi.stubGlobal('fetch', () => Promise.resolve(new Response()));
    askAhead([STUDIO]);
    forgetAhead();
    expect(answerAhead(question(STUDIO))).toBeUndefined();
  });

  it('fails for whoever takes it, and for nobody else', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('away')));
    askAhead([STUDIO]);
    await expect(answerAhead(question(STUDIO))).rejects.toThrow('away');
  });
});
