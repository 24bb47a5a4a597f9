// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { createMemoryHistory, createRouter } from 'vue-router';

import { read } from '@/api/queries';
import { asked, foldedFolder, problem, serve, times } from '@/test/server';

import { SUMS } from './sums';
import SumSheet from './SumSheet.vue';

const BOX = 'POST /api/v1/sums/box';

beforeEach(() => vi.useFakeTimers({ shouldAdvanceTime: true }));
afterEach(() => {
  read.clear();
  vi.useRealTimers();
});

async function sheet(query: Record<string, string> = {}) {
  const sum = SUMS.find(({ name }) => name === 'folder');
  if (!sum) throw new Error('there is a sum of a folder');
  const page = { template: '<p />' };
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/sums/:sum', component: page }],
  });
  await router.push({ path: '/sums/folder', query });
  const mounted = mount(SumSheet, { props: { sum }, global: { plugins: [router] } });
  await flushPromises();
  return { mounted, router };
}

async function rest(): Promise<void> {
  await vi.advanceTimersByTimeAsync(100);
  await flushPromises();
}

describe('a quick sum', () => {
  it('asks with the numbers of its address, and shows what is answered', async () => {
    serve(BOX, { body: foldedFolder() });
    const { mounted } = await sheet({ length_mm: '400', height_mm: '60' });
    expect(asked.at(-1)?.body).toMatchObject({
      style: 'folder',
      length_mm: 400,
      width_mm: 560,
      height_mm: 60,
    });
    const { blank_width_mm: width } = foldedFolder();
    expect(mounted.get('[data-test="figures"]').text()).toContain(`${width.toFixed(0)}\u00a0mm`);
  });

  it('asks once for a quick hand, with what was typed last, and keeps it in the address', async () => {
    serve(BOX, { body: foldedFolder() });
    const { mounted, router } = await sheet();
    const before = times(BOX);
    for (const typed of ['4', '42', '420']) await mounted.get('[name="length_mm"]').setValue(typed);
    await rest();
    expect(times(BOX)).toBe(before + 1);
    expect(asked.at(-1)?.body).toMatchObject({ length_mm: 420 });
    expect(router.currentRoute.value.query.length_mm).toBe('420');
  });

  it('says at the field why a number is refused, and shows no figures of before', async () => {
    serve(BOX, { body: foldedFolder() });
    const { mounted } = await sheet();
    const errors = [
      { field: 'caliper_mm', message: '900 is out of range: give a number from 0.01 to 500 mm' },
    ];
    serve(BOX, { status: 422, body: problem(422, 'out of range', { errors }) });
    await mounted.get('[name="caliper_mm"]').setValue('900');
    await rest();
    expect(mounted.text()).toContain('give a number from 0.01 to 500 mm');
    expect(mounted.find('[data-test="figures"]').exists()).toBe(false);
  });

  it('asks nothing while a number is missing', async () => {
    serve(BOX, { body: foldedFolder() });
    const { mounted } = await sheet();
    const before = times(BOX);
    await mounted.get('[name="width_mm"]').setValue('');
    await rest();
    expect(times(BOX)).toBe(before);
    expect(mounted.text()).toContain('give a number');
  });

  it('says that the server is away, and asks again by itself', async () => {
    serve(BOX, 'away');
    const { mounted } = await sheet();
    expect(mounted.text()).toContain('The server is away');
    serve(BOX, { body: foldedFolder() });
    await vi.advanceTimersByTimeAsync(3000);
    await flushPromises();
    expect(mounted.find('[data-test="figures"]').exists()).toBe(true);
    expect(mounted.text()).not.toContain('The server is away');
  });
});
