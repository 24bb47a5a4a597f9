// The stores while they are looked at: every shelf, and changes of one material at a time.
import { computed, ref } from 'vue';

import { answer, api, Refused } from '@/api/client';
import { read, useRead } from '@/api/queries';
import type { Stores, TableResult } from '@/api/types';
import { useStudio } from '@/api/useStudio';

import type { Material, ShelfKey } from './shelves';

const STORES = ['stores'];

export function useStores() {
  const {
    data: stores,
    away,
    reload: load,
  } = useRead({
    queryKey: STORES,
    queryFn: ({ signal }) => answer(api.GET('/api/v1/stores', { signal })),
  });
  const errors = ref<Record<string, string>>({});
  const failed = ref('');
  /** The stores that what is edited was taken from: newer ones that are read meanwhile were not seen by whoever edits. */
  const basis = ref<number>();
  const { reload } = useStudio();

  /** Makes a change; what is wrong is told at its field, and newer stores are fetched. */
  async function changed(change: (version: number) => Promise<Stores>): Promise<boolean> {
    errors.value = {};
    failed.value = '';
    try {
      // A look at the stores that was asked for before the change must not land after it.
      await read.cancelQueries({ queryKey: STORES });
      const changed = await change(basis.value ?? stores.value?.version ?? 0);
      read.setQueryData(STORES, changed);
      basis.value = changed.version;
      void reload();
      return true;
    } catch (error) {
      if (error instanceof Refused && error.problem.status === 422) errors.value = error.fields;
      else failed.value = error instanceof Error ? error.message : 'something went wrong in the page';
      if (error instanceof Refused && error.problem.type === '/problems/stale') {
        await load();
        basis.value = stores.value?.version;
      }
      return false;
    }
  }

  return {
    stores,
    errors,
    /** Takes the stores as they stand to be edited. */
    take: () => {
      basis.value = stores.value?.version;
    },
    trouble: computed(() => failed.value || (away.value ? 'The stores can’t be reached. Trying again.' : '')),
    put: (shelf: ShelfKey, material: Material) =>
      changed((version) =>
        answer<Stores>(
          api.PUT('/api/v1/stores/{class}/{id}', {
            params: { path: { class: shelf, id: material.id } },
            body: { version, material: material as unknown as Record<string, never> },
          }),
        ),
      ),
    /** Says that every price is right as it stands. */
    checked: () =>
      changed((version) => answer<Stores>(api.POST('/api/v1/stores/prices-checked', { body: { version } }))),
    remove: (shelf: ShelfKey, id: string) =>
      changed((version) =>
        answer<Stores>(
          api.DELETE('/api/v1/stores/{class}/{id}', {
            params: { path: { class: shelf, id }, query: { version } },
          }),
        ),
      ),
    /** Reads a table in, or only says what it would do. */
    table: async (shelf: ShelfKey, csv: string, dry: boolean): Promise<TableResult | undefined> => {
      let result: TableResult | undefined;
      await changed(async (version) => {
        result = await answer<TableResult>(
          api.POST('/api/v1/stores/{class}/table', {
            params: { path: { class: shelf } },
            body: { version, csv, dry_run: dry },
          }),
        );
        return dry && stores.value ? stores.value : result.stores;
      });
      return result;
    },
  };
}
