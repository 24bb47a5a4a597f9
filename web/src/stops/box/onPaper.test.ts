// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils';
import type { VueWrapper } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { createMemoryHistory, createRouter } from 'vue-router';

import { read } from '@/api/queries';
import MeasuringSheet from '@/places/MeasuringSheet.vue';
import TagSheet from '@/places/TagSheet.vue';
import { opened } from '@/test/opened';
import { serve, shipment, studio } from '@/test/server';
import { manners } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import BriefSheet from './BriefSheet.vue';
import WantedCard from './WantedCard.vue';

/** The studio reads inches and pounds; whoever looks at the screen has switched it to millimetres. */
async function inInches(mounted: VueWrapper): Promise<string> {
  Object.assign(manners, { mass: 'lb', fraction: 16 });
  const { house, unit } = useUnits();
  [house.value, unit.value] = ['in', 'mm'];
  await flushPromises();
  return mounted.text();
}
beforeEach(() => serve('GET /api/v1/studio', { body: { ...studio(), unit: 'in' } }));
afterEach(() => {
  Object.assign(manners, { mass: 'kg' });
  const { house, unit } = useUnits();
  [house.value, unit.value] = ['mm', 'mm'];
  document.body.innerHTML = '';
  read.clear();
});

/** The metric units that a text names. */
const metric = (text: string) => text.match(/\b(mm|cm|m|kg|g|m²|millimetres)\b(?!\w)/gu) ?? [];

describe('a sheet that is there to be printed, in a studio of inches and pounds', () => {
  it('is the brief for a crating service', async () => {
    const { mounted } = await opened(BriefSheet);
    const text = await inInches(mounted);
    expect(text).toMatch(/\d\u00a0in/u);
    expect(metric(text)).toEqual([]);
  });

  it('is the card for a carton: never less than what goes in, never more than what is filled', async () => {
    const way = {
      opens: 'face',
      way: 'as_is',
      cartons: 1,
      length_mm: [903, 930],
      width_mm: [700, null],
      depth_mm: [90, 96],
    };
    const wanted = { inside_mm: [903, 700, 90], board: 'Corrugated B', caliper_mm: 3, ways: [way] };
    serve('POST /api/v1/plans/pile', { body: { fits: [], wanted } });
    const { mounted } = await opened(WantedCard);
    await flushPromises();
    const text = await inInches(mounted);
    // 903 mm are 35.55 in: a carton of 35 9/16, and not of 35 1/2; 930 are 36.61, so 36 9/16 at most. 700 are 27.56: 27 9/16.
    expect(text).toContain('35 9/16 to 36 9/16\u00a0in');
    expect(text).toContain('27 9/16\u00a0in or more');
    expect(metric(text)).toEqual([]);
  });

  it('is a tag, and the sheet to measure by', async () => {
    const stored = shipment();
    serve(`GET /api/v1/shipments/${stored.id}`, { body: stored });
    const router = createRouter({
      history: createMemoryHistory(),
      routes: [{ path: '/:rest(.*)*', component: { template: '<p />' } }],
    });
    await router.push(`/tools/tags?of=${stored.id}`);
    const tags = mount(TagSheet, { global: { plugins: [router] } });
    await flushPromises();
    const text = await inInches(tags);
    expect(text).toMatch(/\d\u00a0in/u);
    expect(metric(text)).toEqual([]);
    const sheet = await inInches(mount(MeasuringSheet, { global: { plugins: [router] } }));
    expect(sheet).toContain('inches');
    expect(metric(sheet)).toEqual([]);
  });
});
