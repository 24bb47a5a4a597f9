// The stores while they are looked at: every shelf, and changes of one material at a time.
import { ref, shallowRef } from 'vue';

import { answer, api, Refused } from '@/api/client';
import type { Stores, TableResult } from '@/api/types';
import { useStudio } from '@/api/useStudio';

import type { Material, ShelfKey } from './shelves';

const TRY_AGAIN_AFTER_MS = 2500;

export function useStores() {
  const stores = shallowRef<Stores>();
  const errors = ref<Record<string, string>>({});
  const trouble = ref('');
  const { reload } = useStudio();

  async function load(): Promise<void> {
    try {
      stores.value = await answer(api.GET('/api/v1/stores'));
      trouble.value = '';
    } catch {
      trouble.value = 'The stores can’t be reached. Trying again.';
      setTimeout(() => void load(), TRY_AGAIN_AFTER_MS);
    }
  }

  /** Makes a change; what is wrong is told at its field, and newer stores are fetched. */
  async function changed(change: (version: number) => Promise<Stores>): Promise<boolean> {
    errors.value = {};
    trouble.value = '';
    try {
      stores.value = await change(stores.value?.version ?? 0);
      void reload();
      return true;
    } catch (error) {
      if (error instanceof Refused && error.problem.status === 422) errors.value = error.fields;
      else trouble.value = error instanceof Error ? error.message : 'something went wrong in the page';
      if (error instanceof Refused && error.problem.type === '/problems/stale') {
        const told = trouble.value;
        await load();
        trouble.value = told;
      }
      return false;
    }
  }

  void load();

  return {
    stores,
    errors,
    trouble,
    put: (shelf: ShelfKey, material: Material) =>
      changed((version) =>
        answer<Stores>(
          api.PUT('/api/v1/stores/{class}/{id}', {
            params: { path: { class: shelf, id: material.id } },
            body: { version, material: material as unknown as Record<string, never> },
          }),
        ),
      ),
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
