// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils';
import { defineComponent } from 'vue';
import { afterEach, describe, expect, it } from 'vitest';

import { read } from '@/api/queries';
import { asked, problem, serve, studio, times } from '@/test/server';

import { useStores } from './useStores';

const GET = 'GET /api/v1/stores';
const PUT = 'PUT /api/v1/stores/boards/corrugated-c';

afterEach(() => read.clear());

const stores = (version: number) => ({ body: { version, catalogue: studio().catalogue } });
const board = { id: 'corrugated-c', name: 'Corrugated C', caliper_mm: 4 } as never;

async function opened(): Promise<ReturnType<typeof useStores>> {
  serve('GET /api/v1/studio', { body: studio() });
  serve(GET, stores(3));
  let found: ReturnType<typeof useStores> | undefined;
  mount(
    defineComponent(() => {
      found = useStores();
      return () => null;
    }),
  );
  await flushPromises();
  if (!found) throw new Error('it was not mounted');
  return found;
}

describe('the stores', () => {
  it('are changed by what is known of them, and show what was answered', async () => {
    const shelf = await opened();
    expect(shelf.stores.value?.version).toBe(3);
    serve(PUT, stores(4));
    expect(await shelf.put('boards', board)).toBe(true);
    expect(asked.find(({ what }) => what === PUT)?.body).toMatchObject({ version: 3 });
    expect(shelf.stores.value?.version).toBe(4);
  });

  it('tell what is wrong at its field, and keep what they have', async () => {
    const shelf = await opened();
    const errors = [{ field: 'caliper_mm', message: 'it must be from 0.1 to 30 mm' }];
    serve(PUT, { status: 422, body: problem(422, 'a value is refused', { errors }) });
    expect(await shelf.put('boards', board)).toBe(false);
    expect(shelf.errors.value).toEqual({ caliper_mm: 'it must be from 0.1 to 30 mm' });
    expect([shelf.stores.value?.version, shelf.trouble.value]).toEqual([3, '']);
  });

  it('are fetched anew when they are behind, and say why nothing was changed', async () => {
    const shelf = await opened();
    serve(PUT, { status: 409, body: problem(409, 'the stores were changed', { type: '/problems/stale' }) });
    serve(GET, stores(5));
    expect(await shelf.put('boards', board)).toBe(false);
    expect(shelf.stores.value?.version).toBe(5);
    expect(shelf.trouble.value).toBe('the stores were changed');
    expect(times(GET)).toBe(2);
  });

  it('are changed by what was seen, not by what was read meanwhile', async () => {
    const shelf = await opened();
    shelf.take();
    // Somebody comes back to the window, and another has changed a board meanwhile.
    serve(GET, stores(4));
    await read.refetchQueries();
    await flushPromises();
    expect(shelf.stores.value?.version).toBe(4);
    serve(PUT, { status: 409, body: problem(409, 'the stores were changed', { type: '/problems/stale' }) });
    expect(await shelf.put('boards', board)).toBe(false);
    expect(asked.find(({ what }) => what === PUT)?.body).toMatchObject({ version: 3 });
    // Who was told so, and goes on, means it.
    serve(PUT, stores(5));
    expect(await shelf.put('boards', board)).toBe(true);
    expect(asked.findLast(({ what }) => what === PUT)?.body).toMatchObject({ version: 4 });
  });

  it('change nothing when a table is only tried', async () => {
    const shelf = await opened();
    const tried = { added: 2, changed: 0, same: 1, stores: null, affected: [] };
    serve('POST /api/v1/stores/boards/table', { body: tried });
    expect(await shelf.table('boards', 'id;name', true)).toMatchObject({ added: 2 });
    expect(shelf.stores.value?.version).toBe(3);
  });

  it('say that they can’t be reached', async () => {
    const shelf = await opened();
    serve(PUT, 'away');
    expect(await shelf.put('boards', board)).toBe(false);
    expect(shelf.trouble.value).toBe('the server can’t be reached');
  });
});
