// @vitest-environment happy-dom
import { afterEach, describe, expect, it } from 'vitest';

import { read } from '@/api/queries';
import { opened } from '@/test/opened';
import { manners } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import BriefSheet from './BriefSheet.vue';

afterEach(() => {
  Object.assign(manners, { mass: 'kg' });
  const { house, unit } = useUnits();
  [house.value, unit.value] = ['mm', 'mm'];
  read.clear();
});

/** The metric units that a text names. */
const metric = (text: string) => text.match(/\b(mm|cm|m|kg|g|m²)\b(?!\w)/gu) ?? [];

describe('the brief that is there to be printed', () => {
  it('is in the studio’s units, whichever somebody looks at here', async () => {
    const { mounted } = await opened(BriefSheet);
    Object.assign(manners, { mass: 'lb' });
    const { house, unit } = useUnits();
    [house.value, unit.value] = ['in', 'mm'];
    await mounted.vm.$nextTick();
    expect(mounted.text()).toMatch(/\d\u00a0in\b/u);
    expect(metric(mounted.text())).toEqual([]);
  });
});
