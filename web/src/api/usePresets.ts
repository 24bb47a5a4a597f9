import { computed } from 'vue';

import { answer, api } from './client';
import { useRead } from './queries';

/** The rules that a shipment or a house can start from. */
export function usePresets() {
  const { data, reload } = useRead({
    queryKey: ['presets'],
    queryFn: ({ signal }) => answer(api.GET('/api/v1/studio/presets', { signal })),
  });
  return { presets: computed(() => data.value ?? []), reload };
}
