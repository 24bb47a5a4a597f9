// The scale on the bench, as it is read now.
import { onScopeDispose, ref, shallowRef, watch } from 'vue';
import type { Ref } from 'vue';

import type { ToldReading } from '@/api/types';

const AWAY: ToldReading = { state: 'away', gross_g: null, net_g: null, planned: null, off_g: null };

/** Follows the scale while something shows it, with a tare and held against the plan of a shipment, by its fingerprint. */
export function useScale(shipment: string, plan: Ref<string | undefined>, follows: Ref<boolean>) {
  const tare = ref(0);
  const reading = shallowRef<ToldReading>(AWAY);
  let source: EventSource | undefined;

  function stop(): void {
    source?.close();
    source = undefined;
  }
  function listen(): void {
    stop();
    if (!follows.value) return;
    const asked = new URLSearchParams({ tare_g: String(tare.value), shipment });
    source = new EventSource(`/api/v1/scale/readings?${asked.toString()}`);
    source.onmessage = ({ data }) => {
      reading.value = JSON.parse(data as string) as ToldReading;
    };
    // It calls again by itself.
    source.onerror = () => {
      reading.value = AWAY;
    };
  }
  // A plan that changes is weighed anew.
  watch([tare, plan, follows], listen, { immediate: true });
  onScopeDispose(stop);

  return {
    reading,
    tare,
    /** Takes off what lies on it now, or nothing more. */
    setTare: (grams: number) => {
      tare.value = Math.max(0, Math.round(grams));
    },
  };
}
