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
/** The server hands out another build of the page than this one. */
export const pageRenewed = readonly(renewed);

/** Returns the page as the server hands it out now; nothing while it is away. */
const firstPage = () =>
  fetch('/', { cache: 'no-store', signal: AbortSignal.timeout(5_000) })
    .then((answer) => (answer.ok ? answer.text() : undefined))
    .catch(() => undefined);

/** Each build names its first file by what is in it. */
function isOther(page: string): boolean {
  const first = document.querySelector('script[type="module"][src]')?.getAttribute('src');
  return first != null && !page.includes(first);
}

async function lacks(part: string): Promise<void> {
  missing.value ??= part;
  const page = await firstPage();
  renewed.value = page !== undefined && isOther(page);
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
  const there = (await firstPage()) !== undefined;
  if (there && missing.value) location.assign(missing.value);
  return there;
}
