// What was told of the open parcel on the day on which it left; it stays as it was told.
import { computed } from 'vue';
import type { ComputedRef } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import type { AsItLeft } from '@/api/types';

import { useShipment } from './useShipment';

/** Returns its steps and its prices; nothing while it is at work. */
export function useAsItLeft(): ComputedRef<AsItLeft | undefined> {
  const { id, kept } = useShipment();
  const { data } = useRead({
    queryKey: ['as-it-left', id],
    queryFn: ({ signal }) =>
      answer(api.GET('/api/v1/shipments/{id}/as-it-left', { params: { path: { id } }, signal })),
    enabled: computed(() => kept.value !== undefined),
  });
  return computed(() => (kept.value ? data.value : undefined));
}
