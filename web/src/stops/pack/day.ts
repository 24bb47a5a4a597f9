// Several parcels of a day, packed one after the other: which come next stands in the address.
import { computed, shallowRef, watch } from 'vue';
import type { ComputedRef } from 'vue';
import { useRoute } from 'vue-router';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import { recalled, remember } from '@/kept/remembered';

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

/** Parcels in the order in which they are packed, and the day on which somebody chose them. */
interface Day {
  ids: string[];
  on: string;
}
const KEPT = 'packing one after the other';
const today = () => new Date().toDateString();

/** The parcel that follows the one that is packed; nothing where none does. */
export function useNextParcel(): ComputedRef<NextParcel | undefined> {
  const route = useRoute();
  const named = computed(() => {
    const { then } = route.query;
    return typeof then === 'string' ? then.split(',').filter(Boolean) : [];
  });
  /** Whoever was elsewhere meanwhile, or opens the page anew, goes on where the day was. */
  const kept = shallowRef<string[]>([]);
  void recalled<Day>(KEPT).then((day) => {
    if (day?.on === today()) kept.value = day.ids;
  });
  const here = computed(() => String(route.params.id ?? ''));
  watch(
    [here, named],
    () => {
      if (named.value.length === 0) return;
      kept.value = [here.value, ...named.value];
      void remember(KEPT, { ids: kept.value, on: today() } satisfies Day);
    },
    { immediate: true },
  );
  const then = computed(() => {
    if (named.value.length > 0) return named.value;
    const at = kept.value.indexOf(here.value);
    return at < 0 ? [] : kept.value.slice(at + 1);
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
