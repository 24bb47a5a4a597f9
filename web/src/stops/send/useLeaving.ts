// What is known of a parcel that is to leave, and its booking.
import { computed, ref } from 'vue';

import { answer, api, Refused } from '@/api/client';
import { read, useRead } from '@/api/queries';
import type { Leaving } from '@/api/types';
import { useShipment } from '@/shipment/useShipment';

/** An answer that is still to come is looked for this often. */
const LOOK_AGAIN_MS = 4000;

export function useLeaving() {
  const { id, version, save, refresh } = useShipment();
  const queryKey = computed(() => ['leaving', id, version.value]);
  const path = { id };
  const { data, away, reload } = useRead<Leaving>({
    queryKey,
    queryFn: ({ signal }) => answer(api.GET('/api/v1/shipments/{id}/leaving', { params: { path }, signal })),
    enabled: computed(() => version.value > 0),
    // What is shown stays while it is read anew: nothing jumps from under a hand.
    placeholderData: (before) => before,
    refetchInterval: ({ state }) => {
      const stands = state.data?.booking?.state;
      return stands === 'asked' || stands === 'cancelling' ? LOOK_AGAIN_MS : false;
    },
  });

  const busy = ref(false);
  const trouble = ref('');
  /** One try, however often its button is pressed while no answer comes. */
  let wanted: { id: string; on: string } | undefined;

  async function told(asked: () => Promise<Leaving>): Promise<void> {
    busy.value = true;
    trouble.value = '';
    try {
      await save();
      read.setQueryData(queryKey.value, await asked());
      wanted = undefined;
      await refresh();
    } catch (error) {
      if (error instanceof Refused) wanted = undefined;
      trouble.value = error instanceof Error ? error.message : 'something went wrong in the page';
      await reload();
    } finally {
      busy.value = false;
    }
  }

  /** Books the chosen service for a day, once. */
  function book(on: string): Promise<void> {
    if (wanted?.on !== on) wanted = { id: crypto.randomUUID(), on };
    const key = wanted.id;
    return told(() => {
      const body = { id: key, version: version.value, on };
      return answer(api.POST('/api/v1/shipments/{id}/booking', { params: { path }, body }));
    });
  }

  function cancel(): Promise<void> {
    return told(() => answer(api.DELETE('/api/v1/shipments/{id}/booking', { params: { path } })));
  }

  return { leaving: data, away, busy, trouble, book, cancel };
}
