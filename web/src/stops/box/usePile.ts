// Which carton of the pile would do for the open shipment, asked for while something shows it.
import { keepPreviousData } from '@tanstack/vue-query';
import { computed } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import type { Fit, Inputs } from '@/api/types';
import { useShipment } from '@/shipment/useShipment';
import { useUnits } from '@/units/useUnits';

/** What a carton of the pile is called; both, where two are pushed into each other. */
export function named({ name, second, item }: Fit): string {
  const first = name || 'a carton';
  if (!second) return first;
  return second.item === item ? `Two of ${first}` : `${first} and ${second.name || 'a carton'}`;
}

export function usePile() {
  const { ways } = useShipment();
  const { unit } = useUnits();
  const { data } = useRead({
    queryKey: computed(() => ['pile', ways.inputs.value, unit.value]),
    queryFn: ({ signal }) => {
      const body = { inputs: ways.inputs.value as Inputs, unit: unit.value };
      return answer(api.POST('/api/v1/plans/pile', { body, signal }));
    },
    enabled: computed(() => ways.inputs.value !== undefined),
    placeholderData: keepPreviousData,
  });
  return {
    fits: computed(() => data.value?.fits),
    cases: computed(() => data.value?.cases ?? []),
    wanted: computed(() => data.value?.wanted ?? undefined),
  };
}
