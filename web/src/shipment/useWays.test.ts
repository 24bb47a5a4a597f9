// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { defineComponent, h } from 'vue';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';

import { read } from '@/api/queries';
import AlternativeCards from '@/stops/guard/AlternativeCards.vue';
import ChangesList from '@/stops/guard/ChangesList.vue';
import { opened } from '@/test/opened';
import { asked, problem, serve, times } from '@/test/server';

beforeEach(() => vi.useFakeTimers({ shouldAdvanceTime: true }));
afterEach(() => {
  document.body.innerHTML = '';
  read.clear();
  vi.useRealTimers();
});

const WAYS = 'POST /api/v1/plans/changes';
const more = {
  label: 'Another turn of the second wrap',
  family: 'wrap',
  choices: { second_turns: 3 },
  cost: { amount: '2.10', currency: 'EUR' },
  materials: { amount: '1.10', currency: 'EUR' },
  grams: 60,
  minutes: 2,
  odds_before: { about: 390, from: 190, to: 1100 },
  odds_after: { about: 460, from: 220, to: 1300 },
};
const tissue = { label: 'Acid-free tissue', chosen: false, choices: { contact_paper: 'tissue' } };
const ways = { more: [more], less: [], otherwise: null, price_step: null, alternatives: [tissue] };

const Both = defineComponent(() => () => [h(ChangesList), h(AlternativeCards, { place: 'contact' })]);

it('asks with one question for the changes and for an open layer’s own ways', async () => {
  serve(WAYS, { body: ways });
  const { mounted } = await opened(Both);
  await vi.advanceTimersByTimeAsync(10);
  await flushPromises();
  expect(mounted.text()).toContain('Another turn of the second wrap');
  expect(mounted.get('.offers').text()).toContain('Acid-free tissue');
  expect(times(WAYS)).toBe(1);
  const body = asked.find(({ what }) => what === WAYS)?.body;
  expect(body).toMatchObject({ unit: 'mm', slot: 'contact', inputs: { title: '' } });
});

it('stores what is pressed at once, and then asks what else could be done', async () => {
  serve(WAYS, { body: ways });
  const { mounted, stored } = await opened(Both);
  await vi.advanceTimersByTimeAsync(10);
  const worked = { ...stored.worked, plan: { ...stored.worked.plan } };
  const patch = `PATCH /api/v1/shipments/${stored.id}`;
  serve(patch, ({ body }) => ({
    body: {
      ...stored,
      version: 2,
      worked,
      inputs: { ...stored.inputs, choices: (body as { change: { choices: object } }).change.choices },
    },
  }));
  asked.length = 0;
  await mounted.get('.offers button').trigger('click');
  await vi.advanceTimersByTimeAsync(1000);
  await flushPromises();
  expect(asked.map(({ what }) => what)).toEqual([patch, WAYS]);
  expect(asked[0]?.body).toMatchObject({ change: { choices: { contact_paper: 'tissue' } } });
});

it('says that what is typed can’t be worked out, and does not go on as if it were', async () => {
  const refusal = { status: 422, body: problem(422, 'one value is refused') };
  serve(WAYS, refusal);
  const { mounted } = await opened(Both);
  await vi.advanceTimersByTimeAsync(50);
  await flushPromises();
  expect(mounted.text()).toContain('can’t be calculated just now');
  expect(mounted.text()).not.toContain('Working out');
});

it('says when it can’t be worked out, and goes on asking', async () => {
  serve(WAYS, 'away');
  const { mounted } = await opened(Both);
  await vi.advanceTimersByTimeAsync(50);
  expect(mounted.text()).toContain('can’t be calculated just now');
  serve(WAYS, { body: ways });
  await vi.advanceTimersByTimeAsync(2600);
  await flushPromises();
  expect(mounted.text()).toContain('Another turn of the second wrap');
});

it('takes the cheapest way with its service, where a piece is hardly worth its packing', async () => {
  const cheapest = {
    parts: ['no corner protectors'],
    choices: { layers: { corners: false } },
    service: 'gannet-post/parcel',
    service_name: 'Parcel',
    carrier: 'Gannet Post',
    cost: { amount: '39.91', currency: 'EUR' },
    odds: { about: 62, from: 30, to: 180 },
  };
  serve(WAYS, { body: { ...ways, cheapest } });
  const { mounted } = await opened(Both);
  await vi.advanceTimersByTimeAsync(10);
  await flushPromises();
  const offered = mounted.get('[data-test="cheapest"]');
  expect(offered.text()).toContain('no corner protectors, with Parcel of Gannet Post');
  expect(offered.text()).toContain('1 in 62');
  await offered.get('button').trigger('click');
  await vi.advanceTimersByTimeAsync(2000);
  await flushPromises();
  const saved = asked.findLast(({ what }) => what.startsWith('PATCH'))?.body;
  expect(JSON.stringify(saved)).toContain('gannet-post/parcel');
});
