import { createGlobalState } from '@vueuse/core';
import { ref, shallowRef } from 'vue';

import { useUnits } from '@/units/useUnits';

import { answer, api } from './client';
import type { Studio } from './types';

const TRY_AGAIN_AFTER_MS = 2500;

/** The studio: its name, rules and shelf, asked for once a page. */
export const useStudio = createGlobalState(() => {
  const studio = shallowRef<Studio>();
  const away = ref(false);
  const { house } = useUnits();

  async function load(): Promise<void> {
    try {
      studio.value = await answer(api.GET('/api/v1/studio'));
      house.value = studio.value.unit;
      away.value = false;
    } catch {
      away.value = true;
      setTimeout(() => void load(), TRY_AGAIN_AFTER_MS);
    }
  }
  void load();

  return { studio, away, reload: load };
});
