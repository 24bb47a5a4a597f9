// The tariffs while they are looked at, and one of them while it is changed.
import { computed, ref } from 'vue';

import { answer, api, Refused } from '@/api/client';
import { read, useRead } from '@/api/queries';
import type { TariffKept, TariffSheet, TariffView } from '@/api/types';

import type { Wrong } from './wrong';

const TARIFFS = ['tariffs'];

/** A price list on its way: what it is based on, and what was made of it. */
export interface Basis {
  version?: number;
  /** Nothing for one that is not kept yet. */
  id?: string;
  sheet: TariffSheet;
  /** The same sheet with invented prices, while it is not kept yet. */
  example?: TariffSheet;
}

function kept({ version, id, sheet }: Basis, dry: boolean): Promise<TariffKept> {
  const body = { version: version ?? null, sheet, dry_run: dry };
  return answer<TariffKept>(
    id === undefined
      ? api.POST('/api/v1/tariffs', { body })
      : api.PUT('/api/v1/tariffs/{id}', { params: { path: { id } }, body }),
  );
}

export function useRates() {
  const {
    data: tariffs,
    away,
    reload,
  } = useRead<TariffView[]>({
    queryKey: TARIFFS,
    queryFn: ({ signal }) => answer(api.GET('/api/v1/tariffs', { signal })),
  });
  const wrong = ref<Wrong[]>([]);
  const failed = ref('');

  /** What is only looked over leaves the list alone: it may be on its way with what was kept a moment ago. */
  async function tried<Done>(act: () => Promise<Done>, dry = false): Promise<Done | undefined> {
    wrong.value = [];
    failed.value = '';
    try {
      if (!dry) await read.cancelQueries({ queryKey: TARIFFS });
      return await act();
    } catch (error) {
      if (error instanceof Refused && error.problem.status === 422)
        wrong.value = Object.entries(error.fields).map(([place, says]) => ({ place, says }));
      else failed.value = error instanceof Error ? error.message : 'something went wrong in the page';
      return undefined;
    }
  }
  const done = async (kept: TariffKept | undefined, dry: boolean) => {
    if (kept && !dry) await reload();
    return kept;
  };

  return {
    tariffs,
    wrong,
    trouble: computed(() => failed.value || (away.value ? 'The rates can’t be reached. Trying again.' : '')),
    forget: () => {
      wrong.value = [];
      failed.value = '';
    },
    /** Keeps a tariff, or only has it looked over. */
    put: async (basis: Basis, dry: boolean) => done(await tried(() => kept(basis, dry), dry), dry),
    /** Reads prices in, or only says what they would do. */
    table: async (id: string, version: number, csv: string, dry: boolean) =>
      done(
        await tried(
          () =>
            answer<TariffKept>(
              api.POST('/api/v1/tariffs/{id}/table', {
                params: { path: { id } },
                body: { version, csv, dry_run: dry },
              }),
            ),
          dry,
        ),
        dry,
      ),
    drop: async (id: string, version: number) => {
      const gone = await tried(async () => {
        await answer(api.DELETE('/api/v1/tariffs/{id}', { params: { path: { id }, query: { version } } }));
        return true;
      });
      if (gone) await reload();
      return gone ?? false;
    },
  };
}

export type Rates = ReturnType<typeof useRates>;
