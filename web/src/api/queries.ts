// What is read from the server: kept by what was asked, asked again when somebody comes back to it, and given up when
// nobody wants it any more.
import { focusManager, QueryClient, useQuery } from '@tanstack/vue-query';
import type { UseQueryOptions } from '@tanstack/vue-query';
import { computed } from 'vue';
import type { ComputedRef, ShallowRef } from 'vue';

import { Refused, Unreachable } from './client';

const TRY_AGAIN_AFTER_MS = 2500;

// Whoever comes back to the window sees how things stand by now, whether it was hidden or only behind another.
focusManager.setEventListener((come) => {
  const back = () => come();
  window.addEventListener('visibilitychange', back);
  window.addEventListener('focus', back);
  return () => {
    window.removeEventListener('visibilitychange', back);
    window.removeEventListener('focus', back);
  };
});

/** Everything that was read, once a page. */
export const read = new QueryClient({
  defaultOptions: {
    queries: {
      // The server is most often on the machine itself: whether there is a network says nothing.
      networkMode: 'always',
      // What is refused stays refused; a server that is away comes back.
      retry: (_, error) => error instanceof Unreachable,
      retryDelay: TRY_AGAIN_AFTER_MS,
      structuralSharing: false,
      staleTime: 0,
    },
  },
});

// Only then does it hear that somebody came back.
read.mount();

/** What was read, and whether it can't be read just now. */
export interface Reading<Data> {
  data: ShallowRef<Data | undefined> | ComputedRef<Data | undefined>;
  /** The server does not answer, and is asked again. */
  away: ComputedRef<boolean>;
  /** What it said against the question. */
  refused: ComputedRef<Refused | undefined>;
  /** Asks anew. */
  reload: () => Promise<void>;
}

/** Reads something now, and whenever what is asked changes. */
export function useRead<Data>(options: UseQueryOptions<Data>): Reading<Data> {
  const query = useQuery<Data>(options, read);
  return {
    data: computed(() => query.data.value as Data | undefined),
    away: computed(() => query.failureReason.value instanceof Unreachable),
    refused: computed(() => (query.error.value instanceof Refused ? query.error.value : undefined)),
    reload: async () => {
      await query.refetch();
    },
  };
}
