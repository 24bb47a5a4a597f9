// A component inside an open shipment, as the demo server has it.
import { flushPromises, mount } from '@vue/test-utils';
import type { VueWrapper } from '@vue/test-utils';
import { defineComponent, h } from 'vue';
import type { Component } from 'vue';
import { createMemoryHistory, createRouter } from 'vue-router';

import type { Shipment } from '@/api/types';
import { provideShipment, useShipment } from '@/shipment/useShipment';

import { serve, shipment, studio } from './server';

export interface Opened {
  mounted: VueWrapper;
  open: ReturnType<typeof useShipment>;
  stored: Shipment;
}

/** Serves the studio and one shipment, which is changed beforehand as a test wants it, and shows a component of it. */
export async function opened(
  shown: Component,
  props: Record<string, unknown> = {},
  before: (stored: Shipment) => void = () => undefined,
): Promise<Opened> {
  localStorage.clear();
  sessionStorage.clear();
  const stored = shipment();
  before(stored);
  serve('GET /api/v1/studio', { body: studio() });
  serve(`GET /api/v1/shipments/${stored.id}`, { body: stored });
  let open: ReturnType<typeof useShipment> | undefined;
  const Inside = defineComponent(() => {
    open = useShipment();
    return () => h(shown, props);
  });
  const Outside = defineComponent(() => {
    provideShipment(stored.id);
    return () => h(Inside);
  });
  const nowhere = { template: '<p />' };
  const names = ['measure', 'guard', 'box', 'price', 'pack', 'weigh', 'send', 'after', 'weighings'];
  const router = createRouter({
    history: createMemoryHistory(),
    routes: names.map((name) => ({ path: `/shipments/:id/${name}`, name, component: nowhere })),
  });
  await router.push(`/shipments/${stored.id}/guard`);
  const mounted = mount(Outside, { global: { plugins: [router] }, attachTo: document.body });
  await flushPromises();
  if (!open) throw new Error('it was not opened');
  return { mounted, open, stored };
}
