// The list of the bench: what is looked for, what was found, and what is moved from one place to another.
import { useInfiniteQuery } from '@tanstack/vue-query';
import { refDebounced } from '@vueuse/core';
import { computed, ref, shallowRef } from 'vue';

import { answer, api, Unreachable } from '@/api/client';
import { read } from '@/api/queries';
import { signedOut } from '@/api/signedOut';
import type { BenchRow, Place, SortName } from '@/api/types';
import { useRemembered } from '@/kept/remembered';
import { useInAddress } from '@/kept/useInAddress';

const ASK_AFTER_MS = 120;

export function useBench() {
  const inAddress = useInAddress();
  const sought = inAddress<string>('q', '');
  const place = inAddress<Place>('in', 'bench');
  const sort = inAddress<SortName>('by', 'promised');
  const searched = refDebounced(sought, ASK_AFTER_MS);
  const list = useInfiniteQuery(
    {
      queryKey: ['shipments', place, searched, sort],
      queryFn: ({ pageParam, signal }) => {
        const query = {
          place: place.value,
          search: searched.value,
          sort: sort.value,
          after: pageParam,
          without: ['section' as const],
        };
        return answer(api.GET('/api/v1/shipments', { params: { query }, signal }));
      },
      initialPageParam: undefined as string | undefined,
      getNextPageParam: ({ next }) => next ?? undefined,
      // What is found in one place is no picture of another.
      placeholderData: (before, of) => (of?.queryKey[1] === place.value ? before : undefined),
    },
    read,
  );
  /** The bench as it is opened, without a search. */
  const plain = computed(() => place.value === 'bench' && sort.value === 'promised' && !searched.value);
  const kept = useRemembered('bench', () => (plain.value ? list.data.value?.pages[0] : undefined));
  /** What was read the last time stands there until there is an answer. */
  const before = computed(() => (list.data.value || !plain.value ? undefined : kept.value));
  const rows = computed(
    () => list.data.value?.pages.flatMap((page) => page.rows) ?? before.value?.rows ?? [],
  );
  const total = computed(() => list.data.value?.pages.at(-1)?.total);
  const away = computed(() => !signedOut.value && list.failureReason.value instanceof Unreachable);

  const trouble = ref('');
  const moved = shallowRef<{ row: BenchRow; from: Place; to: Place }>();
  async function put(row: BenchRow, to: Place, from: Place = place.value): Promise<void> {
    trouble.value = '';
    try {
      const path = { id: row.id };
      await answer(api.PUT('/api/v1/shipments/{id}/place', { params: { path }, body: { place: to } }));
      moved.value = { row, from, to };
    } catch (error) {
      const why = error instanceof Error ? error.message : 'something went wrong in the page';
      trouble.value = `“${row.inputs.title || 'Untitled'}” wasn’t moved: ${why}.`;
    }
    await list.refetch();
  }
  async function putBack(): Promise<void> {
    const last = moved.value;
    if (!last) return;
    await put(last.row, last.from, last.to);
    // What could not be moved back can be tried again.
    if (!trouble.value) moved.value = undefined;
  }
  return { sought, place, sort, list, before, rows, total, away, trouble, moved, put, putBack };
}
