// The studios of this program: which there are, and showing another in this browser.
import { computed, ref } from 'vue';

import { answer, api, done } from '@/api/client';
import { useRead } from '@/api/queries';

/** Shows another studio; nothing of the one that was shown stays in the page. */
export function useAnotherStudio() {
  const trouble = ref('');
  async function doing(act: () => Promise<unknown>, to: string): Promise<void> {
    trouble.value = '';
    try {
      await act();
      window.location.assign(to);
    } catch (error) {
      trouble.value = error instanceof Error ? error.message : 'something went wrong in the page';
    }
  }
  const show = (id: string, to = '/') =>
    doing(() => done(api.PUT('/api/v1/studios/shown', { body: { id } })), to);
  return { show, trouble };
}

export function useStudios() {
  const { data } = useRead({
    queryKey: ['studios'],
    queryFn: ({ signal }) => answer(api.GET('/api/v1/studios', { signal })),
    refetchOnWindowFocus: false,
  });
  const studios = computed(() => data.value ?? []);
  return { studios, ...useAnotherStudio() };
}
