// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils';
import { defineComponent } from 'vue';
import type { WritableComputedRef } from 'vue';
import { expect, it } from 'vitest';
import { createMemoryHistory, createRouter } from 'vue-router';

import { useInAddress } from './useInAddress';

it('keeps a value in the address, and begins at the first page with every other one', async () => {
  const nowhere = { template: '<p />' };
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/', component: nowhere }],
  });
  await router.push('/?skip=50&carrier=gannet');
  let carrier: WritableComputedRef<string> | undefined;
  let skip: WritableComputedRef<string> | undefined;
  const Listing = defineComponent(() => {
    const inAddress = useInAddress('skip');
    carrier = inAddress<string>('carrier', '');
    skip = inAddress<string>('skip', '0');
    return () => null;
  });
  const mounted = mount(Listing, { global: { plugins: [router] } });
  expect([carrier?.value, skip?.value]).toEqual(['gannet', '50']);
  if (skip) skip.value = '100';
  await flushPromises();
  expect(router.currentRoute.value.query).toEqual({ carrier: 'gannet', skip: '100' });
  if (carrier) carrier.value = 'marram';
  await flushPromises();
  expect(router.currentRoute.value.query).toEqual({ carrier: 'marram' });
  // As usual: it is left out.
  if (carrier) carrier.value = '';
  await flushPromises();
  expect(router.currentRoute.value.fullPath).toBe('/');
  mounted.unmount();
});
