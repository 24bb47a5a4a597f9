/// <reference lib="webworker" />
// Hands out the page while the server is away. What is online comes first: only where nothing answers is what was kept shown.
import { registerRoute } from 'workbox-routing';
import { CacheFirst, NetworkFirst } from 'workbox-strategies';

declare const self: ServiceWorkerGlobalScope;

const PAGE = 'hummock.page';
const FILES = 'hummock.files';
/** A server that hangs is as good as none. */
const ANSWERS_WITHIN_S = 4;

/** Every file of this build, as the build lists them. */
async function files(): Promise<string[]> {
  const answer = await fetch('/files.json', { cache: 'no-cache' });
  const listed = (await answer.json()) as Record<string, { file: string; css?: string[]; assets?: string[] }>;
  const all = Object.values(listed).flatMap(({ file, css = [], assets = [] }) => [file, ...css, ...assets]);
  return [...new Set(all)].filter((file) => file.startsWith('assets/')).map((file) => `/${file}`);
}

async function keepAll(): Promise<void> {
  const [page, kept] = await Promise.all([caches.open(PAGE), caches.open(FILES)]);
  await Promise.all([page.add('/'), files().then((all) => kept.addAll(all))]);
}

self.addEventListener('install', (event) => {
  event.waitUntil(keepAll().then(() => self.skipWaiting()));
});
self.addEventListener('activate', (event) => {
  event.waitUntil(self.clients.claim());
});

// Files are named by what is in them.
registerRoute(
  ({ url, sameOrigin }) => sameOrigin && url.pathname.startsWith('/assets/'),
  new CacheFirst({ cacheName: FILES }),
);

// One page stands for every address of the application.
registerRoute(
  ({ request, sameOrigin }) => sameOrigin && request.mode === 'navigate',
  new NetworkFirst({
    cacheName: PAGE,
    networkTimeoutSeconds: ANSWERS_WITHIN_S,
    plugins: [{ cacheKeyWillBeUsed: () => Promise.resolve('/') }],
  }),
);
