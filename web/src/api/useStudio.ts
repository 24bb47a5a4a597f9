import { createGlobalState } from '@vueuse/core';
import { watch } from 'vue';

import { useRemembered } from '@/kept/remembered';
import { manners } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import { answer, api } from './client';
import { useRead } from './queries';

/** The studio: its name, rules and shelf, asked for once a page and whenever one comes back to it. */
export const useStudio = createGlobalState(() => {
  const { house } = useUnits();
  const {
    data: now,
    away,
    reload,
  } = useRead({
    queryKey: ['studio'],
    queryFn: ({ signal }) => answer(api.GET('/api/v1/studio', { signal })),
  });
  const data = useRemembered('studio', now);
  watch(
    () => data.value?.unit,
    (unit) => {
      if (unit) house.value = unit;
    },
    { immediate: true },
  );
  watch(
    () => data.value?.manners,
    (written) => {
      if (!written) return;
      const { mass, decimal, date_order, fraction } = written;
      Object.assign(manners, { mass, decimal, date_order, fraction });
    },
    { immediate: true },
  );
  return { studio: data, away, reload };
});
