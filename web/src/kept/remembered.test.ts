import { beforeEach, describe, expect, it, vi } from 'vitest';
import { effectScope, ref } from 'vue';

const kept = new Map<string, unknown>();
let isFull = false;
vi.mock('idb-keyval', () => ({
  clear: () => {
    kept.clear();
    return Promise.resolve();
  },
  get: (name: string) => Promise.resolve(kept.get(name)),
  set: (name: string, data: unknown) => {
    if (isFull) return Promise.reject(new Error('no room'));
    kept.set(name, data);
    return Promise.resolve();
  },
}));

const { signedOut } = await import('@/api/signedOut');
const { recalled, remember, useRemembered } = await import('./remembered');

beforeEach(() => {
  kept.clear();
  isFull = false;
});

describe('what was read last', () => {
  it('stands in until something is read, and never after', async () => {
    await remember('steps', ['as it was']);
    const now = ref<string[]>();
    await effectScope().run(async () => {
      const steps = useRemembered('steps', now);
      expect(steps.value).toBeUndefined();
      await vi.waitFor(() => expect(steps.value).toEqual(['as it was']));
      now.value = ['as it is'];
      expect(steps.value).toEqual(['as it is']);
      await vi.waitFor(async () => expect(await recalled('steps')).toEqual(['as it is']));
    });
  });

  it('is forgotten by whoever is signed out', async () => {
    await remember('steps', ['as it was']);
    signedOut.value = true;
    await vi.waitFor(async () => expect(await recalled('steps')).toBeUndefined());
    signedOut.value = false;
  });

  it('does without where the browser keeps nothing', async () => {
    isFull = true;
    await remember('steps', ['gone']);
    expect(await recalled('steps')).toBeUndefined();
  });
});
