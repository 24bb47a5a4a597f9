// What was read last, kept in this browser, so that the bench goes on where the server is away and the page is opened anew.
import { clear, get, set } from 'idb-keyval';
import { computed, shallowRef, toRaw, toValue, watch } from 'vue';
import type { ComputedRef, MaybeRefOrGetter } from 'vue';

import { signedOut } from '@/api/signedOut';

import { ofStudio } from './studio';

// Whoever is signed out keeps nothing that was read.
watch(signedOut, (out) => {
  if (out) void clear().catch(() => undefined);
});

/** Returns what stands under a name, and nothing where the browser keeps nothing. */
export async function recalled<Data>(name: string): Promise<Data | undefined> {
  try {
    return await get<Data>(ofStudio(name));
  } catch {
    return undefined;
  }
}

/** Keeps something under a name; a browser that keeps nothing does without. */
export async function remember(name: string, data: unknown): Promise<void> {
  try {
    await set(ofStudio(name), data);
  } catch {
    // There is no room, or no leave: the next time while the server is there it is read again.
  }
}

/** Returns what was read, or else what was read the last time. */
export function useRemembered<Data>(
  name: string,
  data: MaybeRefOrGetter<Data | undefined>,
): ComputedRef<Data | undefined> {
  const kept = shallowRef<Data>();
  void recalled<Data>(name).then((found) => {
    kept.value = found;
  });
  watch(
    () => toValue(data),
    (now) => {
      if (now !== undefined) void remember(name, toRaw(now));
    },
    { immediate: true },
  );
  return computed(() => toValue(data) ?? kept.value);
}

/** Has the page itself kept, so that it opens while the server is away. */
export function keepPage(): void {
  // Over plain HTTP from another machine a browser keeps no pages.
  if (!('serviceWorker' in navigator) || import.meta.env.DEV) return;
  void navigator.serviceWorker.register('/worker.js', { type: 'module' }).catch(() => undefined);
}
