import { computed } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';

const LOOK_EVERY_MS = 5000;

/** Whether the program that makes papers and drawings is there: after the first start it is built beside the page. */
export function useDocuments() {
  const { data } = useRead({
    queryKey: ['documents'],
    queryFn: ({ signal }) => answer(api.GET('/api/v1/documents', { signal })),
    refetchInterval: ({ state }) => (state.data?.ready === false ? LOOK_EVERY_MS : false),
  });
  return {
    /** Unknown until it was asked. */
    ready: computed(() => data.value?.ready),
  };
}
