// Shipments that are ticked on the bench; they stay ticked while one goes elsewhere and comes back.
import { useSessionStorage } from '@vueuse/core';
import type { Ref } from 'vue';

import { ofStudio } from '@/kept/studio';

export interface Chosen {
  id: string;
  title: string;
  /** Whether it has a number that it is followed by, and so a label. */
  numbered: boolean;
}

export function useChosen(): Ref<Chosen[]> {
  return useSessionStorage<Chosen[]>(ofStudio('chosen'), []);
}
