// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

import { read } from '@/api/queries';
import { opened } from '@/test/opened';
import { asked, problem, serve, times } from '@/test/server';

import DraftField from './DraftField.vue';

beforeEach(() => vi.useFakeTimers({ shouldAdvanceTime: true }));
afterEach(() => {
  document.body.innerHTML = '';
  read.clear();
  vi.useRealTimers();
});

describe('a field of the open shipment', () => {
  it('shows what is stored, and sends what is typed after a while', async () => {
    const { mounted, stored } = await opened(DraftField, { path: 'title' });
    const field = mounted.get<HTMLInputElement>('[name="title"]');
    expect(mounted.get('label').text()).toBe('Title of the piece');
    expect(field.element.value).toBe('Kelp Ladder');
    const patch = `PATCH /api/v1/shipments/${stored.id}`;
    serve(patch, { body: { ...stored, version: 2, inputs: { ...stored.inputs, title: 'Kelp' } } });
    await field.setValue('Kelp');
    await vi.advanceTimersByTimeAsync(500);
    expect(times(patch)).toBe(0);
    await vi.advanceTimersByTimeAsync(200);
    expect(asked.find(({ what }) => what === patch)?.body).toMatchObject({
      version: 1,
      change: { title: 'Kelp' },
    });
  });

  it('tells what is wrong at the field, and keeps what was typed', async () => {
    const { mounted, stored } = await opened(DraftField, { path: 'piece.width' });
    const errors = [{ field: 'piece.width', message: '“wide” is no length' }];
    const refused = { status: 422, body: problem(422, 'one value is refused', { errors }) };
    serve('POST /api/v1/plans/preview', refused);
    serve(`PATCH /api/v1/shipments/${stored.id}`, refused);
    const field = mounted.get<HTMLInputElement>('[name="piece.width"]');
    await field.setValue('wide');
    await vi.advanceTimersByTimeAsync(200);
    await flushPromises();
    expect(mounted.get('.error').text()).toBe('“wide” is no length');
    expect(field.classes()).toContain('is-invalid');
    expect(field.element.value).toBe('wide');
  });

  it('says what the house does while nothing is typed, from the core', async () => {
    const { mounted, open } = await opened(DraftField, { path: 'choices.clearance', placeholder: '18 mm' });
    expect(mounted.get('.says').text()).toMatch(/^house rule: \d+\u00a0mm$/);
    const leg = await opened(DraftField, { path: 'choices.pocket_leg' });
    expect(leg.mounted.get('.says').text()).toBe('empty: the short side ÷ 8');
    expect(open.draft.choices.clearance).toBe('');
  });

  it('offers the codes that the registry knows, by their names', async () => {
    const { mounted, open } = await opened(DraftField, { path: 'piece.medium', empty: 'Choose' });
    const texts = mounted.findAll('option').map((option) => option.text());
    expect(texts.slice(0, 3)).toEqual(['Choose', 'Oil', 'Oil with a fast-drying medium']);
    await mounted.get('select').setValue('encaustic');
    expect(open.draft.piece.medium).toBe('encaustic');
  });

  it('stores a tick at once', async () => {
    const { mounted, stored } = await opened(DraftField, { path: 'piece.certificate' });
    const patch = `PATCH /api/v1/shipments/${stored.id}`;
    serve(patch, { body: { ...stored, version: 2 } });
    await mounted.get('[name="piece.certificate"]').setValue(true);
    await flushPromises();
    expect(times(patch)).toBe(1);
    expect(times('POST /api/v1/plans/preview')).toBe(0);
  });

  it('takes a number, and holds back what is none', async () => {
    const { mounted, open } = await opened(DraftField, { path: 'piece.count' });
    const field = mounted.get<HTMLInputElement>('[name="piece.count"]');
    expect(field.element.placeholder).toBe('1');
    await field.setValue('three');
    expect(open.loose.value).toEqual({ 'piece.count': 'three' });
    expect(open.state.value).toBe('refused');
    await field.setValue('3');
    expect(open.draft.piece.count).toBe(3);
    expect(open.loose.value).toEqual({});
  });

  it('shows a day as people write it', async () => {
    const { mounted } = await opened(DraftField, { path: 'promised' });
    expect(mounted.get('.says').text()).toBe('12 Mar 2027');
  });
});
