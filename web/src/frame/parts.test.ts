// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { nextTick } from 'vue';
import { createMemoryHistory, createRouter } from 'vue-router';

import { partMissing, partPending, watchParts } from './parts';
import PartMissing from './PartMissing.vue';

const page = { template: '<p>here</p>' };
function watched(load: () => Promise<unknown>) {
  const routes = [
    { path: '/', component: page },
    { path: '/far', component: load },
  ];
  const router = createRouter({ history: createMemoryHistory(), routes });
  watchParts(router);
  return router;
}

beforeEach(() => vi.useFakeTimers());
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('a part of the page', () => {
  it('that is slow to come is said to be loaded after a moment', async () => {
    let come: (part: typeof page) => void = () => undefined;
    const router = watched(() => new Promise((given) => (come = given)));
    const gone = router.push('/far');
    await vi.advanceTimersByTimeAsync(200);
    expect(partPending.value).toBe(false);
    await vi.advanceTimersByTimeAsync(200);
    expect(partPending.value).toBe(true);
    come(page);
    await gone;
    expect(partPending.value).toBe(false);
  });

  it('that can’t be loaded is named, and tried again where the server is back', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('Failed to fetch')));
    const router = watched(() => Promise.reject(new TypeError('Failed to fetch')));
    await router.push('/far?on=1').catch(() => undefined);
    expect(partMissing.value).toBe('/far?on=1');
    vi.useRealTimers();
    const shown = mount(PartMissing);
    expect(shown.text()).not.toContain('renewed');
    await shown.get('button').trigger('click');
    await vi.waitFor(() => expect(shown.text()).toContain('still away'));
    const assign = vi.spyOn(location, 'assign').mockImplementation(() => undefined);
    vi.stubGlobal('fetch', () => Promise.resolve(new Response('')));
    await shown.get('button').trigger('click');
    await vi.waitFor(() => expect(assign).toHaveBeenCalledWith('/far?on=1'));
    await nextTick();
  });

  it('that another build has no longer says that the page is of a former one', async () => {
    const first = (name: string) => `<script type="module" src="/assets/${name}.js"></script>`;
    const script = document.createElement('script');
    script.setAttribute('src', '/assets/index-old.js');
    const shows = vi.spyOn(document, 'querySelector').mockReturnValue(script);
    const handsOut = (name: string) =>
      vi.stubGlobal('fetch', () => Promise.resolve(new Response(first(name))));
    // Of the same build it is only this file that did not come.
    handsOut('index-old');
    const same = watched(() => Promise.reject(new TypeError('Failed to fetch')));
    await same.push('/far').catch(() => undefined);
    await vi.advanceTimersByTimeAsync(100);
    expect(mount(PartMissing).text()).toContain('can’t be loaded. Your changes');
    handsOut('index-new');
    const router = watched(() => Promise.reject(new TypeError('Failed to fetch')));
    await router.push('/far').catch(() => undefined);
    vi.useRealTimers();
    const shown = mount(PartMissing);
    await vi.waitFor(() => expect(shown.text()).toContain('Hummock was renewed'));
    const assign = vi.spyOn(location, 'assign').mockImplementation(() => undefined);
    await shown.get('button').trigger('click');
    await vi.waitFor(() => expect(assign).toHaveBeenCalledWith('/far'));
    shows.mockRestore();
  });
});
