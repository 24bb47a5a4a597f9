// Keeping a form of the studio: what is refused about it, until it is typed as it was kept again.
import { ref, watch } from 'vue';
import type { Ref } from 'vue';

import { Refused } from '@/api/client';

export function useKeeping(changed: Ref<boolean>, reload: () => Promise<unknown>) {
  const errors = ref<Record<string, string>>({});
  const trouble = ref('');
  const busy = ref(false);

  function forget(): void {
    errors.value = {};
    trouble.value = '';
  }
  watch(changed, (is) => {
    if (!is) forget();
  });

  /** Does what keeps it, and tells whether that was taken; what was refused stands at its field. */
  async function keeping(what: () => Promise<void>): Promise<boolean> {
    busy.value = true;
    forget();
    try {
      await what();
      return true;
    } catch (error) {
      if (error instanceof Refused) errors.value = error.fields;
      trouble.value = error instanceof Error ? error.message : 'something went wrong in the page';
      // What somebody else kept meanwhile is the next basis; what is typed stays.
      if (error instanceof Refused && error.problem.status === 409) await reload();
      return false;
    } finally {
      busy.value = false;
    }
  }

  return { errors, trouble, busy, keeping };
}
