// The steps at the bench for the open shipment, and what is ticked of them.
import { keepPreviousData } from '@tanstack/vue-query';
import { computed } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import type { Inputs, PackStepView } from '@/api/types';
import { useRemembered } from '@/kept/remembered';
import { useAsItLeft } from '@/shipment/asItLeft';
import { useShipment } from '@/shipment/useShipment';
import { useUnits } from '@/units/useUnits';

export type Standing = 'done' | 'touched' | 'open' | 'waits';

export function usePacking() {
  const { id, ways, draft, save } = useShipment();
  const { unit } = useUnits();
  const then = useAsItLeft();
  const ready = computed(() => ways.inputs.value !== undefined);
  const { data, away } = useRead({
    queryKey: computed(() => ['packing', ways.inputs.value, draft.packed, draft.title, unit.value]),
    queryFn: ({ signal }) => {
      // Steps of several pieces are told by their titles.
      const inputs = { ...(ways.inputs.value as Inputs), packed: draft.packed, title: draft.title };
      return answer(api.POST('/api/v1/plans/packing', { body: { inputs, unit: unit.value }, signal }));
    },
    enabled: ready,
    placeholderData: keepPreviousData,
  });
  const now = () => (then.value ? then.value.packing : data.value?.packing) ?? undefined;
  const packing = useRemembered(`packing.${id}`, now);
  const steps = computed(() => packing.value?.steps ?? []);

  /** As the server says; what was ticked or taken back since then counts at once. */
  function standing(step: PackStepView): Standing {
    const tick = draft.packed[step.key];
    if (!tick) {
      // What was done together with another step has no tick of its own.
      if (!step.at && step.state === 'done') return 'done';
      return step.state === 'waits' ? 'waits' : 'open';
    }
    if (tick.at === step.at) return step.state === 'touched' ? 'touched' : 'done';
    return tick.print === step.print ? 'done' : 'touched';
  }
  function tick(...done: PackStepView[]): void {
    const at = new Date().toISOString();
    for (const { key, print } of done) draft.packed[key] = { at, print, sheet: '' };
    void save();
  }
  function takeBack(...keys: string[]): void {
    for (const key of keys) Reflect.deleteProperty(draft.packed, key);
    void save();
  }
  return { packing, then, steps, standing, tick, takeBack, away };
}
