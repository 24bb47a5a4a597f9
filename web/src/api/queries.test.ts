// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils';
import { defineComponent } from 'vue';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';

import { asked, problem, serve, times } from '@/test/server';

import { answer, api } from './client';
import { read, useRead } from './queries';
import type { Reading } from './queries';

beforeEach(() => vi.useFakeTimers());
afterEach(() => {
  read.clear();
  vi.useRealTimers();
});

const WHAT = 'GET /api/v1/studio/presets';

function reading(): Reading<unknown> {
  let found: Reading<unknown> | undefined;
  mount(
    defineComponent({
      setup() {
        found = useRead<unknown>({
          queryKey: ['presets'],
          queryFn: ({ signal }) => answer(api.GET('/api/v1/studio/presets', { signal })),
        });
        return () => null;
      },
    }),
  );
  if (!found) throw new Error('it was not mounted');
  return found;
}

it('asks a server that is away again until it is back', async () => {
  serve(WHAT, 'away');
  const { data, away } = reading();
  await flushPromises();
  await vi.advanceTimersByTimeAsync(10);
  expect(away.value).toBe(true);
  serve(WHAT, { body: [] });
  await vi.advanceTimersByTimeAsync(2600);
  expect(data.value).toEqual([]);
  expect(away.value).toBe(false);
  expect(asked).toHaveLength(2);
});

it('does not ask again for what was refused', async () => {
  serve(WHAT, { status: 422, body: problem(422, 'the name is too long') });
  const { refused, away } = reading();
  await vi.advanceTimersByTimeAsync(10_000);
  expect(refused.value?.message).toBe('the name is too long');
  expect(away.value).toBe(false);
  expect(asked).toHaveLength(1);
});

it('asks once for all who read the same', async () => {
  serve(WHAT, { body: [] });
  const [one, other] = [reading(), reading()];
  await vi.advanceTimersByTimeAsync(10);
  expect([one.data.value, other.data.value]).toEqual([[], []]);
  expect(times(WHAT)).toBe(1);
});

it('looks again when somebody comes back to the window', async () => {
  serve(WHAT, { body: [] });
  const { data } = reading();
  await vi.advanceTimersByTimeAsync(10);
  serve(WHAT, { body: [{ why: 'new' }] });
  window.dispatchEvent(new Event('focus'));
  await vi.advanceTimersByTimeAsync(10);
  expect(data.value).toEqual([{ why: 'new' }]);
});
