// The log: what is looked for stands in the address, so that back and a reload lead to the same parcels.
import { refDebounced } from '@vueuse/core';
import { computed } from 'vue';
import type { WritableComputedRef } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import type { LogPage, Reckoning } from '@/api/types';
import { useInAddress } from '@/kept/useInAddress';

export const PAGE = 50;
const ASK_AFTER_MS = 150;
const KEYS = ['search', 'outcome', 'class', 'route', 'carrier', 'preset', 'from', 'to'] as const;

export type Log = ReturnType<typeof useLog>;

export function useLog() {
  const inAddress = useInAddress('skip');
  const sought = Object.fromEntries(KEYS.map((key) => [key, inAddress<string>(key, '')])) as Record<
    (typeof KEYS)[number],
    WritableComputedRef<string>
  >;
  const sort = inAddress<string>('sort', 'newest');
  const skip = inAddress<string>('skip', '0');

  const wanted = computed(() => {
    const pairs = KEYS.map((key) => [key, sought[key].value] as const).filter(([, value]) => value !== '');
    return Object.fromEntries(pairs) as Record<string, string>;
  });
  const asked = refDebounced(wanted, ASK_AFTER_MS);

  const page = useRead<LogPage>({
    queryKey: computed(() => ['log', asked.value, sort.value, skip.value]),
    queryFn: ({ signal }) => {
      const query = { ...asked.value, sort: sort.value, skip: Number(skip.value), most: PAGE };
      return answer(api.GET('/api/v1/log', { params: { query: query as never }, signal }));
    },
    placeholderData: (before: LogPage | undefined) => before,
  });
  const reckoning = useRead<Reckoning>({
    queryKey: computed(() => ['reckoning', asked.value]),
    queryFn: ({ signal }) =>
      answer(api.GET('/api/v1/log/reckoning', { params: { query: asked.value as never }, signal })),
    placeholderData: (before: Reckoning | undefined) => before,
  });
  /** The same parcels for another program. */
  const table = (kind: 'csv' | 'json') =>
    `/api/v1/log.${kind}?${new URLSearchParams(asked.value).toString()}`;
  return { sought, sort, skip, page, reckoning, table };
}
