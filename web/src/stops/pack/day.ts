// Several parcels of a day, packed one after the other: which come next stands in the address.
import { computed } from 'vue';
import type { ComputedRef } from 'vue';
import { useRoute } from 'vue-router';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';

/** Where the packing of a day begins: at the first, with the others to follow. */
export function dayOf(ids: readonly string[]): string {
  const [first, ...then] = ids;
  return `/shipments/${first ?? ''}/pack${then.length > 0 ? `?then=${then.join(',')}` : ''}`;
}

export interface NextParcel {
  title: string;
  /** How many are left with it. */
  left: number;
  to: string;
}

/** The parcel that follows the one that is packed; nothing where none does. */
export function useNextParcel(): ComputedRef<NextParcel | undefined> {
  const route = useRoute();
  const then = computed(() => {
    const named = route.query.then;
    return typeof named === 'string' ? named.split(',').filter(Boolean) : [];
  });
  const { data } = useRead({
    queryKey: computed(() => ['shipment', then.value[0]]),
    queryFn: ({ signal }) =>
      answer(api.GET('/api/v1/shipments/{id}', { params: { path: { id: then.value[0] ?? '' } }, signal })),
    enabled: computed(() => then.value.length > 0),
  });
  return computed(() => {
    const left = then.value.length;
    if (left === 0) return undefined;
    return { title: data.value?.inputs.title || 'the next one', left, to: dayOf(then.value) };
  });
}
