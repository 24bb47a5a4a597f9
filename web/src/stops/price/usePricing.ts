// How far it is to other prices of the open shipment, and what the buyer pays; asked for while something shows it.
import { keepPreviousData } from '@tanstack/vue-query';
import { computed } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import type { Inputs } from '@/api/types';
import { useAsItLeft } from '@/shipment/asItLeft';
import { useShipment } from '@/shipment/useShipment';
import { useUnits } from '@/units/useUnits';

export function usePricing() {
  const { ways } = useShipment();
  const then = useAsItLeft();
  const { unit } = useUnits();
  const { data, away } = useRead({
    queryKey: computed(() => ['pricing', ways.inputs.value, unit.value]),
    queryFn: ({ signal }) => {
      const body = { inputs: ways.inputs.value as Inputs, unit: unit.value };
      return answer(api.POST('/api/v1/plans/price', { body, signal }));
    },
    enabled: computed(() => ways.inputs.value !== undefined),
    placeholderData: keepPreviousData,
  });
  // The carriers themselves are asked besides: nobody waits for them.
  const { data: said } = useRead({
    queryKey: computed(() => ['carriers', ways.inputs.value, unit.value]),
    queryFn: ({ signal }) => {
      const body = { inputs: ways.inputs.value as Inputs, unit: unit.value };
      return answer(api.POST('/api/v1/plans/carriers', { body, signal }));
    },
    enabled: computed(() => ways.inputs.value !== undefined),
  });
  const priced = computed(() => then.value?.pricing ?? data.value);
  return {
    arrivals: computed(() => priced.value?.arrivals ?? []),
    /** Nothing in what left before it was told. */
    dearer: computed(() => priced.value?.dearer ?? []),
    said: computed(() => said.value),
    ladders: computed(() => priced.value?.ladders ?? []),
    charge: computed(() => priced.value?.charge ?? undefined),
    away,
  };
}
