// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

import type { Layer, Shipment } from '@/api/types';
import { read } from '@/api/queries';
import { opened } from '@/test/opened';

import EnclosureFields from './EnclosureFields.vue';

beforeEach(() => vi.useFakeTimers({ shouldAdvanceTime: true }));
afterEach(() => {
  document.body.innerHTML = '';
  read.clear();
  vi.useRealTimers();
});

/** Puts a certificate of the house into the plan. */
function certified({ worked }: Shipment): void {
  const enclosed = {
    key: 'certificate',
    kind: 'certificate',
    name: '',
    place: 'under_last_wrap',
    thickness_mm: 1,
    mass_g: 25,
    hard: false,
    set: 'With a certificate',
  };
  const layers = worked.plan?.layers ?? [];
  layers.push({ ...layers[0], make: { kind: 'enclosures', list: [enclosed] } } as unknown as Layer);
}

const shown = () => opened(EnclosureFields, {}, certified);

describe('what goes in with a piece', () => {
  it('says where each thing of the house lies, how thick it is and what it weighs', async () => {
    const { mounted } = await shown();
    const row = mounted.get('li').text();
    expect(row).toContain('certificate');
    expect(row).toContain('behind, under the last wrap');
    expect(row).toContain('25 g');
    expect(row).toContain('by the house: With a certificate');
  });

  it('leaves out what the house brings, says so, and puts it back', async () => {
    const { mounted, open } = await shown();
    await mounted.findAll('li button').at(-1)?.trigger('click');
    expect(open.draft.enclosures.certificate?.left_out).toBe(true);
    expect(mounted.get('li').text()).toContain('left out of this one');
    await mounted.get('li button').trigger('click');
    expect(open.draft.enclosures).toEqual({});
  });

  it('adds one thing after the other, each under a name of its own', async () => {
    const { mounted, open } = await shown();
    const add = mounted.get('[name="enclosure-kind"]');
    await add.setValue('gift');
    await flushPromises();
    await add.setValue('gift');
    await flushPromises();
    expect(Object.keys(open.draft.enclosures)).toEqual(['own-1', 'own-2']);
    expect(open.draft.enclosures['own-1']?.kind).toBe('gift');
    expect((add.element as HTMLSelectElement).value).toBe('');
    // What the shipment listed itself is not left out, but gone.
    const own = mounted.findAll('li').at(1);
    await own?.findAll('button').at(-1)?.trigger('click');
    expect(Object.keys(open.draft.enclosures)).toEqual(['own-2']);
  });
});
