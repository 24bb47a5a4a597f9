// A plan as it would be with a change that is pointed at and not taken.
import { keepPreviousData } from '@tanstack/vue-query';
import { computed } from 'vue';
import type { ComputedRef, Ref } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import type { Choices, Inputs, Plan } from '@/api/types';
import { patched } from '@/shipment/draft';
import type { Json } from '@/shipment/draft';
import { LISTED } from '@/shipment/transport';
import { useShipment } from '@/shipment/useShipment';
import { useUnits } from '@/units/useUnits';

/** Choices with nothing in them that is left as it is. */
function chosen(choices: Partial<Choices>): Json {
  return JSON.parse(JSON.stringify(choices, (_, value: unknown) => value ?? undefined)) as Json;
}

export function useGhost(looked: Ref<Partial<Choices> | undefined>): ComputedRef<Plan | undefined> {
  const { ways } = useShipment();
  const { unit } = useUnits();
  const { data } = useRead({
    queryKey: computed(() => ['ghost', ways.inputs.value, looked.value, unit.value]),
    queryFn: ({ signal }) => {
      const inputs = patched(ways.inputs.value as unknown as Json, { choices: chosen(looked.value ?? {}) });
      const body = { inputs: inputs as unknown as Inputs, unit: unit.value };
      const query = { without: ['survival' as const, 'lines' as const, 'slots' as const] };
      return answer(
        api.POST('/api/v1/plans/preview', { params: { query }, querySerializer: LISTED, body, signal }),
      );
    },
    enabled: computed(() => looked.value !== undefined && ways.inputs.value !== undefined),
    placeholderData: keepPreviousData,
    retry: false,
  });
  return computed(() => (looked.value ? (data.value?.worked.plan ?? undefined) : undefined));
}
