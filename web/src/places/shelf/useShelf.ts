// The shelf while it is looked at: what is on it, and every change of it.
import { computed, ref } from 'vue';

import { answer, api, Refused } from '@/api/client';
import { read, useRead } from '@/api/queries';
import type { OpenedPanel, ShelfRequest, ShelfView } from '@/api/types';

const SHELF = ['shelf'];

export function useShelf() {
  const { data, away } = useRead<ShelfView>({
    queryKey: SHELF,
    queryFn: ({ signal }) => answer(api.GET('/api/v1/shelf', { signal })),
  });
  const errors = ref<Record<string, string>>({});
  const failed = ref('');

  /** Makes a change; what is wrong is told at its field. */
  async function changed<Done>(
    change: () => Promise<Done>,
    shelf?: (done: Done) => ShelfView,
  ): Promise<Done | undefined> {
    errors.value = {};
    failed.value = '';
    try {
      await read.cancelQueries({ queryKey: SHELF });
      const done = await change();
      if (shelf) read.setQueryData(SHELF, shelf(done));
      return done;
    } catch (error) {
      if (error instanceof Refused && error.problem.status === 422) errors.value = error.fields;
      else failed.value = error instanceof Error ? error.message : 'something went wrong in the page';
      if (error instanceof Refused && error.problem.status === 409)
        await read.invalidateQueries({ queryKey: SHELF });
      return undefined;
    }
  }
  const itself = (view: ShelfView) => view;
  const at = (id: string) => ({ path: { id } });

  return {
    items: computed(() => data.value?.items),
    errors,
    trouble: computed(() => failed.value || (away.value ? 'The shelf can’t be reached. Trying again.' : '')),
    forget: () => {
      errors.value = {};
      failed.value = '';
    },
    put: (body: ShelfRequest) =>
      changed(() => answer<ShelfView>(api.POST('/api/v1/shelf', { body })), itself),
    /** Counts anew; nobody else's count is written over. */
    count: (id: string, was: number, item: ShelfRequest) =>
      changed(
        () => answer<ShelfView>(api.PUT('/api/v1/shelf/{id}', { params: at(id), body: { ...item, was } })),
        itself,
      ),
    drop: (id: string) =>
      changed(() => answer<ShelfView>(api.DELETE('/api/v1/shelf/{id}', { params: at(id) })), itself),
    open: async (
      id: string,
      bad: string[],
      place: string,
      dry: boolean,
    ): Promise<OpenedPanel[] | undefined> => {
      const body = { bad, place, dry_run: dry };
      const panels = await changed(() =>
        answer<OpenedPanel[]>(api.POST('/api/v1/shelf/{id}/open', { params: at(id), body })),
      );
      if (panels && !dry) void read.invalidateQueries({ queryKey: SHELF });
      return panels;
    },
    table: (csv: string, dry: boolean) =>
      changed(
        () => answer(api.POST('/api/v1/shelf/table', { body: { csv, dry_run: dry } })),
        ({ shelf }) => shelf,
      ),
    record: (id: string) => changed(() => answer(api.GET('/api/v1/shelf/{id}/record', { params: at(id) }))),
  };
}

export type Shelf = ReturnType<typeof useShelf>;
