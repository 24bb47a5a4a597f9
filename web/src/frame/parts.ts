// Parts of the page that are loaded as they are needed: which one is on its way, and which can't be loaded.
import { readonly, ref } from 'vue';
import type { Router } from 'vue-router';

/** Before that nobody notices. */
const NOTICED_MS = 300;

const pending = ref(false);
const missing = ref<string>();
const renewed = ref(false);

/** A part is on its way. */
export const partPending = readonly(pending);
/** The address of the part that can't be loaded. */
export const partMissing = readonly(missing);
/** The server is there without that part: another build of it was started since this page was loaded. */
export const pageRenewed = readonly(renewed);

const serverAnswers = () =>
  fetch('/', { cache: 'no-store', signal: AbortSignal.timeout(5_000) })
    .then(({ ok }) => ok)
    .catch(() => false);

async function lacks(part: string): Promise<void> {
  missing.value ??= part;
  renewed.value = await serverAnswers();
}

/** Watches the parts that a router loads, and those that are loaded within them. */
export function watchParts(router: Router): void {
  let noticed: ReturnType<typeof setTimeout> | undefined;
  const ended = () => {
    clearTimeout(noticed);
    pending.value = false;
  };
  router.beforeEach(() => {
    clearTimeout(noticed);
    noticed = setTimeout(() => (pending.value = true), NOTICED_MS);
  });
  router.afterEach(() => {
    ended();
    missing.value = undefined;
  });
  router.onError((_, to) => {
    ended();
    missing.value = undefined;
    void lacks(to.fullPath);
  });
  window.addEventListener('vite:preloadError', () => {
    void lacks(router.currentRoute.value.fullPath);
  });
}

/** Loads the page anew at that part, once there is a server that hands it out. */
export async function tryAgain(): Promise<boolean> {
  const there = await serverAnswers();
  if (there && missing.value) location.assign(missing.value);
  return there;
}
