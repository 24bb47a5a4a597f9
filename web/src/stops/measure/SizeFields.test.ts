// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

import { read } from '@/api/queries';
import { opened } from '@/test/opened';
import { asked, problem, serve, times } from '@/test/server';

import SizeFields from './SizeFields.vue';

const READ = 'POST /api/v1/measures/read';

beforeEach(() => vi.useFakeTimers({ shouldAdvanceTime: true }));
afterEach(() => {
  document.body.innerHTML = '';
  read.clear();
  vi.useRealTimers();
});

const sides = (width: string, height: string, depth: string) => ({
  body: { width: { text: width }, height: { text: height }, depth: { text: depth } },
});

async function typing() {
  const shown = await opened(SizeFields);
  const field = shown.mounted.get('[name="size"]');
  const type = async (text: string) => {
    await field.setValue(text);
    await vi.advanceTimersByTimeAsync(200);
    await flushPromises();
  };
  return { ...shown, field, type };
}

describe('a size in one field', () => {
  it('fills the three sides with what the server reads in it', async () => {
    serve(READ, sides('35 1/2 in', '47 1/4 in', '1 1/2 in'));
    const { open, type } = await typing();
    await type('35 1/2 x 47 1/4 x 1 1/2 in');
    expect(asked.find(({ what }) => what === READ)?.body).toEqual({
      text: '35 1/2 x 47 1/4 x 1 1/2 in',
      unit: 'mm',
    });
    expect(open.draft.piece).toMatchObject({ width: '35 1/2 in', height: '47 1/4 in', depth: '1 1/2 in' });
  });

  it('is asked about once, though it is typed again', async () => {
    serve(READ, sides('400 mm', '500 mm', '18 mm'));
    const { type } = await typing();
    await type('40 x 50 x 1.8 cm');
    serve(READ, sides('410 mm', '500 mm', '18 mm'));
    await type('41 x 50 x 1.8 cm');
    await type('40 x 50 x 1.8 cm');
    expect(times(READ)).toBe(2);
  });

  it('stays as it was typed when it is not understood, with a word at the field', async () => {
    serve(READ, { status: 422, body: problem(422, '“wide” was not understood') });
    const { mounted, open, field, type } = await typing();
    const before = { ...open.draft.piece };
    await type('very wide');
    await field.trigger('focusout');
    await flushPromises();
    expect(mounted.get('.error').text()).toBe('“wide” was not understood');
    expect((field.element as HTMLInputElement).value).toBe('very wide');
    expect(open.draft.piece.width).toBe(before.width);
  });

  it('stays too when nobody answers, and is not taken for wrong', async () => {
    serve(READ, 'away');
    const { mounted, field, type } = await typing();
    await type('40 x 50 x 1.8 cm');
    expect((field.element as HTMLInputElement).value).toBe('40 x 50 x 1.8 cm');
    expect(mounted.find('.error').exists()).toBe(false);
  });

  it('of which two sides are typed fills those, and asks for the third', async () => {
    serve(READ, { body: { width: { text: '40 cm' }, height: { text: '50 cm' }, depth: null } });
    const { mounted, open, type } = await typing();
    open.draft.piece.depth = '';
    await type('40x50 cm');
    expect(open.draft.piece).toMatchObject({ width: '40 cm', height: '50 cm', depth: '' });
    expect(mounted.text()).toContain('and how deep it is');
  });

  it('that could be in another unit is asked for, and taken in the one that is pressed', async () => {
    const reading = (unit: string, text: string) => ({ unit, text, width_mm: 1, height_mm: 1, depth_mm: 1 });
    const doubt = {
      readings: [reading('mm', '80 mm × 60 mm × 2 mm'), reading('cm', '80 cm × 60 cm × 2 cm')],
    };
    serve(READ, { body: { ...sides('80 mm', '60 mm', '2 mm').body, doubt } });
    const { mounted, open, type } = await typing();
    await type('80x60x2');
    const buttons = mounted.findAll('[data-test="unit-doubt"] button');
    expect(buttons.map((button) => button.text())).toEqual(doubt.readings.map(({ text }) => text));
    serve(READ, sides('80 cm', '60 cm', '2 cm'));
    await buttons[1]?.trigger('click');
    await flushPromises();
    expect(open.draft.piece).toMatchObject({ width: '80 cm', height: '60 cm', depth: '2 cm' });
    expect(mounted.find('[data-test="unit-doubt"]').exists()).toBe(false);
  });

  it('of a loose sheet has two sides', async () => {
    serve(READ, { body: { width: { text: '297 mm' }, height: { text: '420 mm' }, depth: null } });
    const { mounted, open, type } = await typing();
    open.draft.piece.construction = 'loose_paper';
    open.draft.piece.depth = '';
    await type('297x420');
    expect(mounted.text()).not.toContain('how deep it is');
  });

  it('that is emptied leaves the three sides, and asks nothing', async () => {
    const { open, type } = await typing();
    const before = { ...open.draft.piece };
    await type('');
    expect(open.draft.piece).toMatchObject(before);
    expect(times(READ)).toBe(0);
  });
});
