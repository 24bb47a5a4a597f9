// The ways that nothing beats, as they are found.
import { onScopeDispose, ref, shallowRef, watch } from 'vue';
import type { Ref } from 'vue';

import type { Front } from '@/api/types';

/** Looks for the ways of a stored shipment, anew for each version of it; can be stopped, and keeps what it found. */
export function useFront(shipment: string, version: Ref<number | undefined>) {
  const front = shallowRef<Front>();
  const looking = ref(false);
  const away = ref(false);
  let source: EventSource | undefined;

  function stop(): void {
    source?.close();
    source = undefined;
    looking.value = false;
  }
  function look(): void {
    stop();
    looking.value = true;
    away.value = false;
    source = new EventSource(`/api/v1/shipments/${shipment}/ways`);
    source.onmessage = ({ data }) => {
      front.value = JSON.parse(data as string) as Front;
      away.value = false;
      if (front.value.done) stop();
    };
    // It asks again by itself.
    source.onerror = () => {
      away.value = true;
    };
  }
  watch(
    version,
    (now) => {
      if (now !== undefined) look();
    },
    { immediate: true },
  );
  onScopeDispose(stop);
  return { front, looking, away, look, stop };
}
