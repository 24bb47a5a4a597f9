// The other ways to pack an open shipment, asked for with one question for all who show some of them.
import { keepPreviousData } from '@tanstack/vue-query';
import { computed, onScopeDispose, shallowRef, watch } from 'vue';
import type { ComputedRef } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import type { Inputs, LayerSlot, LengthUnit } from '@/api/types';

import { useShipment } from './useShipment';

interface Asking {
  plan: ComputedRef<object | undefined>;
  typed: () => Inputs;
  unit: () => LengthUnit;
}

/** What the ways to pack a piece follow from: names, and what is settled or done already, change none. */
function asked(inputs: Inputs): Inputs {
  return { ...inputs, title: '', settled: { guard: null, box: null, weigh: null }, packed: {} };
}

/** Follows a shipment's plan: asked once for each, and only while something shows them. */
export function waysOf({ plan, typed, unit }: Asking) {
  const slot = shallowRef<LayerSlot>();
  const wanted = shallowRef(0);
  const inputs = shallowRef<Inputs>();
  watch(
    plan,
    (now) => {
      inputs.value = now && asked(typed());
    },
    { immediate: true },
  );
  const { data, away, refused } = useRead({
    queryKey: computed(() => ['ways', inputs.value, unit(), slot.value]),
    queryFn: async ({ signal }) => {
      const of = slot.value;
      const body = { inputs: inputs.value as Inputs, unit: unit(), slot: of ?? null };
      return { of, found: await answer(api.POST('/api/v1/plans/changes', { body, signal })) };
    },
    enabled: computed(() => wanted.value > 0 && inputs.value !== undefined),
    placeholderData: keepPreviousData,
  });
  return {
    changes: computed(() => data.value?.found ?? undefined),
    /** What else the layer that is looked at could be. */
    alternatives: computed(() =>
      data.value?.of === slot.value ? (data.value?.found?.alternatives ?? undefined) : undefined,
    ),
    /** How else the box could be made, where that is looked at. */
    styles: computed(() =>
      data.value?.of === slot.value ? (data.value?.found?.styles ?? undefined) : undefined,
    ),
    /** What is on the shelf in place of a box that is cut, where that is looked at. */
    bought: computed(() =>
      data.value?.of === slot.value ? (data.value?.found?.bought ?? undefined) : undefined,
    ),
    /** A travel case in place of the box, where that is looked at. */
    travelCase: computed(() =>
      data.value?.of === slot.value ? (data.value?.found?.case ?? undefined) : undefined,
    ),
    /** They can't be worked out just now: the server is away, or what is typed can't be read yet. */
    away: computed(() => away.value || refused.value !== undefined),
    slot,
    wanted,
    /** What they are asked for. */
    inputs,
  };
}

/** Returns the other ways to pack the open shipment, which are asked for while the component is there. */
export function useWays(place?: () => LayerSlot): ReturnType<typeof waysOf> {
  const { ways } = useShipment();
  ways.wanted.value += 1;
  if (place) watch(place, (now) => (ways.slot.value = now), { immediate: true });
  onScopeDispose(() => {
    ways.wanted.value -= 1;
    if (ways.slot.value === place?.()) ways.slot.value = undefined;
  });
  return ways;
}
