// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

import { patient, silent } from './patience';

/** A server that hangs: it answers nothing, and hears that it is given up. */
const hangs = (_: RequestInfo | URL, init?: RequestInit) =>
  new Promise<Response>((_, give) => {
    init?.signal?.addEventListener('abort', () => give(init.signal?.reason as Error));
  });
const ask = (path: string, init?: RequestInit) =>
  patient(new Request(`http://localhost/api/v1${path}`, init)).catch((error: unknown) => error);

beforeEach(() => {
  vi.useFakeTimers();
  silent.value = false;
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('whoever asks a server that hangs', () => {
  it('is told after three seconds, and waits no longer than ten', async () => {
    vi.stubGlobal('fetch', hangs);
    const answer = ask('/shipments');
    await vi.advanceTimersByTimeAsync(2_900);
    expect(silent.value).toBe(false);
    await vi.advanceTimersByTimeAsync(200);
    expect(silent.value).toBe(true);
    await vi.advanceTimersByTimeAsync(7_000);
    expect(await answer).toMatchObject({ name: 'TimeoutError' });
    // It stays said until something is heard.
    expect(silent.value).toBe(true);
    vi.stubGlobal('fetch', () => Promise.resolve(new Response('{}')));
    expect(await ask('/shipments')).toBeInstanceOf(Response);
    expect(silent.value).toBe(false);
  });

  it('waits longer for what takes its time, and is told nothing', async () => {
    vi.stubGlobal('fetch', hangs);
    const answer = ask('/sums/cutting', { method: 'POST', body: '{}' });
    await vi.advanceTimersByTimeAsync(39_000);
    expect(silent.value).toBe(false);
    await vi.advanceTimersByTimeAsync(2_000);
    expect(await answer).toMatchObject({ name: 'TimeoutError' });
  });

  it('may give up before that', async () => {
    vi.stubGlobal('fetch', hangs);
    const own = new AbortController();
    const answer = ask('/shipments', { signal: own.signal });
    own.abort();
    expect(await answer).toMatchObject({ name: 'AbortError' });
    await vi.advanceTimersByTimeAsync(5_000);
    expect(silent.value).toBe(false);
  });
});
