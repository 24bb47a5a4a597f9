// What the window is called: what is open, where, and in what program.
import { createGlobalState } from '@vueuse/core';
import { computed, ref, watchEffect } from 'vue';
import { useRoute } from 'vue-router';

/** What is open in the place that is shown, if it has a name of its own. */
export const useOpened = createGlobalState(() => ref(''));

/** Names the window after the place that is shown, while the component is there. */
export function useWindowTitle(): void {
  const route = useRoute();
  const opened = useOpened();
  const title = computed(() => [opened.value, route.meta.title, 'Hummock'].filter(Boolean).join(' · '));
  watchEffect(() => {
    document.title = title.value;
  });
}
