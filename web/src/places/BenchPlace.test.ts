// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { createMemoryHistory, createRouter } from 'vue-router';

import { read } from '@/api/queries';
import { asked, problem, serve, shipment, studio, times } from '@/test/server';

import BenchLine from './BenchLine.vue';
import BenchPlace from './BenchPlace.vue';

const LIST = 'GET /api/v1/shipments';

beforeEach(() => vi.useFakeTimers({ shouldAdvanceTime: true }));
afterEach(() => {
  document.body.innerHTML = '';
  read.clear();
  vi.useRealTimers();
});

function row(title: string, group = 'plan') {
  const { inputs, summary, line } = shipment();
  const id = `id-${title}`;
  return { id, version: 1, inputs: { ...inputs, title }, summary, line: { ...line, group }, against: [] };
}

async function bench(path = '/') {
  localStorage.clear();
  serve('GET /api/v1/studio', { body: studio() });
  const nowhere = { template: '<p />' };
  const stops = ['measure', 'guard', 'box', 'price'];
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/', component: nowhere },
      { path: '/:rest(.*)', component: nowhere },
      ...stops.map((name) => ({ path: `/shipments/:id/${name}`, name, component: nowhere })),
    ],
  });
  await router.push(path);
  const mounted = mount(BenchPlace, { global: { plugins: [router] }, attachTo: document.body });
  await flushPromises();
  return { mounted, router };
}

describe('the bench', () => {
  it('groups what there is by what can be done now, as the core says', async () => {
    const rows = [row('Planned'), row('Wet', 'paint'), row('Packed', 'weigh'), row('Also', 'plan')];
    serve(LIST, { body: { rows, total: 4, next: null } });
    const { mounted } = await bench();
    expect(mounted.findAll('h2').map((heading) => heading.text())).toEqual([
      'To weigh one shipment',
      'To plan two shipments',
      'Waiting for paint one shipment',
    ]);
    expect(mounted.findAll('section').map((part) => part.findAll('li').length)).toEqual([1, 2, 1]);
  });

  it('says what a parcel waits for, and by when to order it', async () => {
    const waits = row('Kelp', 'materials');
    const lack = (name: string, order_by: string | null, too_late = false) => ({
      name,
      short: 2,
      measure: 'pieces',
      order_by,
      too_late,
    });
    const lacks = [lack('Kraft tape', '2027-03-08'), lack('Glassine', '2027-03-05'), lack('Foam', null)];
    const says = '3 materials short: Kraft tape, Glassine and 1 more.';
    const against = [{ kind: 'short', level: 'mind', says, at: 'box', code: null }];
    serve(LIST, { body: { rows: [{ ...waits, lacks, against }], total: 1, next: null } });
    const { mounted } = await bench();
    expect(mounted.get('h2').text()).toContain('Waiting for materials');
    const line = mounted.get('main li, li');
    expect(line.get('.next strong').text()).toBe(says);
    expect(line.text()).toContain('order by 5 Mar');
    expect(line.get('a').attributes('href')).toBe('/shipments/id-Kelp/box');
  });

  it('prints the labels of those that have a number', async () => {
    sessionStorage.clear();
    const rows = [
      { ...row('Heron'), tracking: 'GP-1' },
      { ...row('Kelp'), tracking: null },
    ];
    serve(LIST, { body: { rows, total: 2, next: null } });
    const { mounted } = await bench();
    const [heron, kelp] = mounted.findAll<HTMLInputElement>('[name="together"]');
    await kelp?.setValue(true);
    expect(mounted.get('[data-test="together"]').text()).toContain('No label before it is booked');
    await heron?.setValue(true);
    const labels = mounted.get('[data-test="labels"]');
    expect(labels.text()).toBe('Labels of one');
    expect(labels.attributes('href')).toBe('/api/v1/leaving/labels?of=id-Heron');
  });

  it('keeps what is ticked, with what can be done with it, and deletes it', async () => {
    sessionStorage.clear();
    serve(LIST, { body: { rows: [row('Heron'), row('Kelp')], total: 2, next: null } });
    serve('PUT /api/v1/shipments/id-Kelp/place', { body: {} });
    const { mounted } = await bench();
    expect(mounted.find('[data-test="together"]').exists()).toBe(false);
    const boxes = mounted.findAll<HTMLInputElement>('[name="together"]');
    await boxes[1]?.setValue(true);
    const bar = mounted.get('[data-test="together"]');
    expect(bar.text()).toContain('One shipment chosen');
    expect(bar.text()).toContain('Kelp');
    expect(bar.get('.btn-primary').attributes('href')).toBe('/shipments/id-Kelp/pack');
    // Somewhere else and back.
    mounted.unmount();
    const again = (await bench()).mounted;
    expect(again.get('[data-test="together"]').text()).toContain('Kelp');
    const drop = again.findAll('[data-test="together"] .btn').find((one) => one.text() === 'Delete');
    await drop?.trigger('click');
    await flushPromises();
    expect(times('PUT /api/v1/shipments/id-Kelp/place')).toBe(1);
    expect(again.find('[data-test="together"]').exists()).toBe(false);
  });

  it('shows more when it is asked to, from where the last page ended', async () => {
    serve(LIST, ({ body }) => {
      expect(body).toBeUndefined();
      const first = asked.filter(({ what }) => what === LIST).length === 1;
      return { body: { rows: [row(first ? 'First' : 'Second')], total: 2, next: first ? 'abc' : null } };
    });
    const { mounted } = await bench('/?by=newest');
    expect(mounted.text()).toContain('1 of 2');
    await mounted.get('.more button').trigger('click');
    await flushPromises();
    expect(mounted.text()).toContain('First');
    expect(mounted.text()).toContain('Second');
    expect(mounted.find('.more').exists()).toBe(false);
  });

  it('says what is empty, and why', async () => {
    serve(LIST, { body: { rows: [], total: 0, next: null } });
    expect((await bench()).mounted.text()).toContain('The bench is clear');
    read.clear();
    expect((await bench('/?q=heron')).mounted.text()).toContain('Nothing here is called “heron”');
    read.clear();
    expect((await bench('/?in=archive')).mounted.text()).toContain('No shipments here');
  });

  it('asks once for a word that is typed quickly, and keeps it in the address', async () => {
    serve(LIST, { body: { rows: [row('Heron')], total: 1, next: null } });
    const { mounted, router } = await bench();
    const before = times(LIST);
    const field = mounted.get<HTMLInputElement>('input[type="search"]');
    for (const text of ['h', 'he', 'her']) {
      await field.setValue(text);
      await vi.advanceTimersByTimeAsync(40);
    }
    await vi.advanceTimersByTimeAsync(200);
    await flushPromises();
    expect(times(LIST) - before).toBe(1);
    expect(router.currentRoute.value.query).toEqual({ q: 'her' });
  });

  it('says why something stays where it is', async () => {
    serve(LIST, { body: { rows: [row('Heron')], total: 1, next: null } });
    serve('PUT /api/v1/shipments/id-Heron/place', { status: 409, body: problem(409, 'it was changed') });
    const { mounted } = await bench();
    mounted.getComponent(BenchLine).vm.$emit('put', 'archive');
    await flushPromises();
    expect(mounted.text()).toContain('“Heron” wasn’t moved: it was changed.');
  });

  it('is away, and back', async () => {
    serve(LIST, 'away');
    const { mounted } = await bench();
    await vi.advanceTimersByTimeAsync(50);
    expect(mounted.text()).toContain('can’t be reached');
    serve(LIST, { body: { rows: [row('Heron')], total: 1, next: null } });
    await vi.advanceTimersByTimeAsync(2600);
    await flushPromises();
    expect(mounted.text()).toContain('Heron');
    expect(mounted.text()).not.toContain('can’t be reached');
  });
});
