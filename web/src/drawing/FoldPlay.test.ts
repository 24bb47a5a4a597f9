// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

import { read } from '@/api/queries';
import type { BoxAnswer } from '@/api/types';
import { asked, foldedFolder, problem, serve, times } from '@/test/server';

import FoldPlay from './FoldPlay.vue';

const BOX = 'POST /api/v1/sums/box';
const box = { style: 'folder', length_mm: 400, width_mm: 300, height_mm: 60, caliper_mm: 4 } as const;

beforeEach(() =>
  vi.useFakeTimers({ toFake: ['requestAnimationFrame', 'cancelAnimationFrame', 'performance'] }),
);
afterEach(() => {
  read.clear();
  vi.useRealTimers();
});

async function shown(change: (answer: BoxAnswer) => void = () => undefined) {
  const answer = foldedFolder();
  change(answer);
  serve(BOX, { body: answer });
  // The picture is of no use to a test: the text beside says the same.
  const mounted = mount(FoldPlay, { props: { box }, global: { stubs: { FoldPicture: true } } });
  await flushPromises();
  return mounted;
}

describe('folding', () => {
  it('is told step by step, with the proof that it closes', async () => {
    const mounted = await shown();
    expect(asked.at(-1)?.body).toMatchObject({ style: 'folder', length_mm: 400, frames: 12 });
    const steps = mounted.findAll('li').map((step) => step.text());
    expect(steps.slice(1, 6)).toEqual([
      'Lay it open on the bench, its inside up.',
      expect.stringContaining('Lay the wrapped piece on the middle of the base, its face down'),
      'Fold both ends up and their tucks in against it.',
      'Fold both long walls up against the ends.',
      expect.stringContaining('Fold the lids over'),
    ]);
    expect(mounted.get('[data-test="proof"]').text()).toContain('all of the inside stays free');
  });

  it('goes to the end of a step that is pressed, and says how far it is in words', async () => {
    const mounted = await shown();
    expect(mounted.findAll('li button')[0]?.attributes('aria-current')).toBe('step');
    const picture = () => Number(mounted.get('fold-picture-stub').attributes('at'));
    await mounted.findAll('li button')[3]?.trigger('click');
    // Two pictures a fold in what the test serves: ends and tucks are the first two folds of four.
    const range = mounted.get('input[type="range"]');
    expect((range.element as HTMLInputElement).value).toBe('4');
    expect(picture()).toBe(4);
    expect(range.attributes('aria-valuetext')).toBe('Fold both ends up and their tucks in against it.');
    expect(mounted.get('[aria-current="step"]').text()).toContain('tucks');
    // Where the piece is laid on it, the blank lies flat; once it is taped, it stays closed.
    await mounted.findAll('li button')[2]?.trigger('click');
    expect(picture()).toBe(0);
    await mounted.findAll('li button')[7]?.trigger('click');
    expect(picture()).toBe(8);
  });

  it('plays to the end and stays there, and begins anew when it is played again', async () => {
    const mounted = await shown();
    const play = mounted.get('.play button');
    const at = () => Number((mounted.get('input[type="range"]').element as HTMLInputElement).value);
    await play.trigger('click');
    expect(play.text()).toBe('Stop');
    await vi.advanceTimersByTimeAsync(700);
    expect(at()).toBeGreaterThan(0.2);
    expect(at()).toBeLessThan(1);
    await vi.advanceTimersByTimeAsync(12_000);
    expect(at()).toBe(8);
    expect(play.text()).toBe('Play');
    await play.trigger('click');
    await vi.advanceTimersByTimeAsync(100);
    expect(at()).toBeLessThan(1);
    await play.trigger('click');
    expect(play.text()).toBe('Play');
  });

  it('moves by whole steps where nothing should move', async () => {
    const still = vi.spyOn(window, 'matchMedia').mockImplementation(
      (query) =>
        ({
          matches: query.includes('reduced-motion'),
          addEventListener: () => undefined,
          removeEventListener: () => undefined,
        }) as unknown as MediaQueryList,
    );
    const mounted = await shown();
    const play = mounted.get('.play button');
    await play.trigger('click');
    expect(mounted.get('[aria-current="step"]').text()).toContain('Score it');
    await play.trigger('click');
    expect(mounted.get('[aria-current="step"]').text()).toContain('its inside up');
    expect(play.text()).toBe('Play');
    still.mockRestore();
  });

  it('says so where it would not close', async () => {
    const mounted = await shown(({ folding }) => {
      if (folding?.[0]) Object.assign(folding[0], { closes: false, through_mm: 3.42 });
    });
    expect(mounted.get('[data-test="proof"]').text()).toBe(
      'It does not close: a panel passes 3.4 mm through another.',
    );
  });

  it('says why a box can’t be folded that is out of range', async () => {
    serve(BOX, { status: 422, body: problem(422, 'a telescope is at least 100 mm long') });
    const mounted = mount(FoldPlay, { props: { box }, global: { stubs: { FoldPicture: true } } });
    await flushPromises();
    expect(mounted.text()).toBe('It can’t be folded: a telescope is at least 100 mm long.');
  });

  it('says that it can’t be worked out while the server is away', async () => {
    serve(BOX, 'away');
    const mounted = mount(FoldPlay, { props: { box }, global: { stubs: { FoldPicture: true } } });
    await flushPromises();
    expect(mounted.text()).toBe('How it folds can’t be worked out just now.');
    expect(times(BOX)).toBe(1);
  });
});
