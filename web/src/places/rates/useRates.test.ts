// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils';
import { VueQueryPlugin } from '@tanstack/vue-query';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { defineComponent, h } from 'vue';

import { read } from '@/api/queries';
import type { TariffSheet } from '@/api/types';
import { answered, clear, serve } from '@/test/server';

import { useRates } from './useRates';
import type { Rates } from './useRates';

/** The list is answered late from its second question on. */
let lists = 0;
let release = (): void => undefined;
beforeEach(() => {
  lists = 0;
  const late = new Promise<void>((done) => {
    release = done;
  });
  vi.stubGlobal('fetch', async (input: Request) => {
    const isList = input.method === 'GET' && input.url.endsWith('/tariffs');
    if (isList && (lists += 1) > 1) await late;
    return await answered(input);
  });
});
afterEach(() => {
  vi.unstubAllGlobals();
  read.clear();
  clear();
});

function opened(): Rates {
  let rates: Rates | undefined;
  const page = defineComponent({
    setup() {
      rates = useRates();
      return () => h('div');
    },
  });
  mount(page, { global: { plugins: [[VueQueryPlugin, { queryClient: read }]] } });
  if (!rates) throw new Error('it is not open');
  return rates;
}

it('what is looked over while a price list is kept leaves the new list on its way', async () => {
  serve('GET /api/v1/tariffs', { body: [] });
  serve('POST /api/v1/tariffs', { body: { version: 1, tariff: { id: 'tern-lines' } } });
  const rates = opened();
  await flushPromises();
  serve('GET /api/v1/tariffs', { body: [{ tariff: { id: 'tern-lines' } }] });
  const basis = { sheet: {} as TariffSheet };
  const keeping = rates.put(basis, false);
  await vi.waitUntil(() => lists === 2);
  await rates.put(basis, true);
  release();
  await keeping;
  expect(rates.tariffs.value?.map(({ tariff }) => tariff.id)).toEqual(['tern-lines']);
});
