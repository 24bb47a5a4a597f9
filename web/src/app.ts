import { createApp } from 'vue';

import { forgetAhead } from './api/ahead';
import { read } from './api/queries';
import App from './App.vue';
import { watchParts } from './frame/parts';
import { keepPage } from './kept/remembered';
import { router } from './router';

/** A line on which the page began to come within this many milliseconds brings the letters along with the first view. */
const FAST_MS = 200;
const LOOK_EVERY_MS = 200;

const letters = () => import('./styles/letters.scss');
const [page] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[];
if (page && page.responseStart - page.requestStart < FAST_MS) void letters();

watchParts(router);
createApp(App).use(router).mount('#app');

/** Waits until the first view stands, with what it reads. */
async function firstView(): Promise<void> {
  await router.isReady();
  do await new Promise((resolve) => setTimeout(resolve, LOOK_EVERY_MS));
  while (read.isFetching() > 0);
}

void firstView().then(() => {
  forgetAhead();
  void letters();
  // Whatever was opened once opens while the server is away, from the first page on.
  keepPage();
});
