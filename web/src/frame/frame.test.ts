// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';

import { read } from '@/api/queries';
import { opened } from '@/test/opened';
import { problem, serve, times } from '@/test/server';

import ConflictNotice from './ConflictNotice.vue';
import SaveLight from './SaveLight.vue';
import TallySheet from './TallySheet.vue';
import WorkLine from './WorkLine.vue';

afterEach(() => {
  document.body.innerHTML = '';
  read.clear();
});

describe('the work line', () => {
  it('leads to each stop, with its figure and how far it is', async () => {
    const { mounted, stored } = await opened(WorkLine);
    const stops = mounted.findAll('a');
    expect(stops.map((stop) => stop.attributes('href'))).toEqual(
      ['measure', 'guard', 'box', 'price', 'pack', 'weigh', 'send', 'after'].map(
        (stop) => `/shipments/${stored.id}/${stop}`,
      ),
    );
    expect(stops.map((stop) => stop.get('.name').text().replace(/\s+/g, ' '))).toEqual([
      'Measure, done',
      'Guard, open',
      'Box, open',
      'Price, open',
      'Pack, open',
      'Weigh, open',
      'Send, open',
      'After, open',
    ]);
    expect(stops[0]?.get('.headline').text()).toBe('900\u202f×\u202f1200\u202f×\u202f38\u00a0mm');
    expect(stops[1]?.attributes('aria-current')).toBe('step');
  });

  it('has no figures before the piece is measured', async () => {
    const { mounted } = await opened(WorkLine, {}, (stored) => {
      Object.assign(stored, { summary: null });
    });
    expect(mounted.findAll('.headline').map((one) => one.text())).toEqual([
      'not measured',
      ...Array<string>(7).fill('–'),
    ]);
  });
});

describe('the tally', () => {
  it('says what is missing before there is a plan', async () => {
    const { mounted } = await opened(TallySheet, {}, (stored) => {
      Object.assign(stored, { summary: null });
      Object.assign(stored.worked, { plan: null, quotes: [], missing: ['piece.width', 'piece.medium'] });
    });
    expect(mounted.text()).toContain('The figures appear once you enter the width, what it is made in.');
  });

  it('names each figure of the plan', async () => {
    const { mounted, stored } = await opened(TallySheet);
    const figures = mounted.findAll('[data-figure]').map((one) => one.attributes('data-figure'));
    expect(figures).toEqual([
      ...['arrive damaged', 'outside', 'weight', 'billed as', 'work'],
      ...['to send', 'materials', 'labour and overhead', 'carrier', 'expected damage'],
    ]);
    const figure = (name: string) => mounted.get(`[data-figure="${name}"]`).text();
    const cost = stored.summary?.cost;
    expect(figure('carrier')).toBe(`${stored.summary?.best?.total.amount ?? ''}\u00a0EUR`);
    expect(figure('to send')).toBe(`${cost?.to_send.amount ?? ''}\u00a0EUR`);
    // What is written adds up: the four parts are the sum to send, and what is damaged on average.
    const number = (name: string) => Number(figure(name).split('\u00a0')[0]);
    const parts = ['materials', 'labour and overhead', 'carrier'].map(number);
    expect(parts.reduce((sum, part) => sum + part, 0)).toBeCloseTo(number('to send'), 6);
  });

  it('opens the lines of a part', async () => {
    const { mounted, stored } = await opened(TallySheet);
    const carrier = mounted.findAll('button.part').find((one) => one.text().includes('carrier'));
    await carrier?.trigger('click');
    expect(carrier?.attributes('aria-expanded')).toBe('true');
    expect(mounted.get('[data-test="money"] dl').text()).toContain(stored.summary?.cost?.carriage.amount);
    await carrier?.trigger('click');
    expect(mounted.find('[data-test="money"] dl').exists()).toBe(false);
  });
});

describe('two who changed the same', () => {
  async function clashing() {
    const found = await opened(ConflictNotice);
    const { open, stored } = found;
    const theirs = { ...stored, version: 2, inputs: { ...stored.inputs, title: 'Kelp, dried' } };
    const patch = `PATCH /api/v1/shipments/${stored.id}`;
    serve(patch, {
      status: 409,
      body: problem(409, 'it was changed', { type: '/problems/stale', current: theirs }),
    });
    open.draft.title = 'Kelp, wet';
    await open.save();
    await flushPromises();
    return { ...found, patch, theirs };
  }

  it('are shown beside each other in words, and either is kept', async () => {
    const { mounted, open, patch, theirs } = await clashing();
    const cells = mounted.findAll('tbody td').map((cell) => cell.text());
    expect(mounted.get('tbody th').text()).toBe('title of the piece');
    expect(cells).toEqual(['Kelp, wet', 'Kelp, dried']);
    serve(patch, { body: { ...theirs, version: 3, inputs: { ...theirs.inputs, title: 'Kelp, wet' } } });
    await mounted.get('.btn').trigger('click');
    await open.save();
    await flushPromises();
    expect(times(patch)).toBe(2);
    expect([open.state.value, open.draft.title]).toEqual(['saved', 'Kelp, wet']);
    expect(mounted.find('[data-test="conflict"]').exists()).toBe(false);
  });

  it('are settled by taking the other', async () => {
    const { mounted, open } = await clashing();
    const [, other] = mounted.findAll('.btn');
    await other?.trigger('click');
    await flushPromises();
    expect([open.state.value, open.draft.title]).toEqual(['saved', 'Kelp, dried']);
  });
});

describe('the light', () => {
  it('says how far what is typed is stored', async () => {
    const { mounted, open, stored } = await opened(SaveLight);
    const says = () => mounted.get('[data-test="save-state"]').text();
    expect(says()).toBe('Saved');
    open.draft.title = 'Kelp';
    await mounted.vm.$nextTick();
    expect(says()).toBe('Saving');
    serve(`PATCH /api/v1/shipments/${stored.id}`, 'away');
    await open.save();
    await flushPromises();
    expect(says()).toBe('Kept on this page, trying to save');
    open.text('piece.count').value = 'three';
    await mounted.vm.$nextTick();
    expect(says()).toBe('Kept on this page, trying to save');
  });

  it('lets nothing be undone that was never done', async () => {
    const { mounted } = await opened(SaveLight);
    expect(mounted.findAll('.btn').map((one) => one.attributes('disabled'))).toEqual(['', '']);
  });
});
