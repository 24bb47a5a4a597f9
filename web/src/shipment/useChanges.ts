import { useDebounceFn } from '@vueuse/core';
import { onScopeDispose, ref, shallowRef, watch } from 'vue';
import type { Ref, ShallowRef } from 'vue';

import { answer, api } from '@/api/client';
import type { Changes } from '@/api/types';
import { useUnits } from '@/units/useUnits';

import { useShipment } from './useShipment';

const AFTER_MS = 250;

/** Asks what other ways to pack the open shipment would do, now and whenever its plan changes. */
export function useChanges(): { changes: ShallowRef<Changes | undefined>; away: Ref<boolean> } {
  const { plan, typed } = useShipment();
  const { unit } = useUnits();
  const changes = shallowRef<Changes>();
  const away = ref(false);
  let asked: AbortController | undefined;

  async function load(): Promise<void> {
    asked?.abort();
    asked = new AbortController();
    const { signal } = asked;
    try {
      const body = { inputs: typed(), unit: unit.value };
      changes.value = (await answer(api.POST('/api/v1/plans/changes', { body, signal }))) ?? undefined;
      away.value = false;
    } catch {
      // A later question was asked meanwhile: it answers.
      if (!signal.aborted) away.value = true;
    }
  }
  const loadSoon = useDebounceFn(load, AFTER_MS);
  if (plan.value) void load();
  watch(plan, () => void loadSoon());
  onScopeDispose(() => asked?.abort());
  return { changes, away };
}
