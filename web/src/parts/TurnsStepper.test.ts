// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { describe, expect, it } from 'vitest';

import TurnsStepper from './TurnsStepper.vue';

function stepper(shown: number) {
  const mounted = mount(TurnsStepper, { props: { label: 'Turns', least: 1, most: 4, shown } });
  const press = (name: string) => mounted.get(`[aria-label="${name}"]`).trigger('click');
  return { mounted, press };
}

describe('a stepper', () => {
  it('counts every press, however slowly the plan follows', async () => {
    const { mounted, press } = stepper(1);
    await press('one turn more');
    await press('one turn more');
    expect(mounted.emitted('set')).toEqual([[2], [3]]);
    // The plan with two turns arrives first.
    await mounted.setProps({ shown: 2 });
    expect(mounted.get('output').text()).toBe('3');
    await mounted.setProps({ shown: 3 });
    await press('one turn less');
    expect(mounted.emitted('set')?.at(-1)).toEqual([2]);
  });

  it('stops at its ends', async () => {
    const { mounted, press } = stepper(3);
    await press('one turn more');
    await press('one turn more');
    expect(mounted.emitted('set')).toEqual([[4]]);
    expect(mounted.get('[aria-label="one turn more"]').attributes()).toHaveProperty('disabled');
  });

  it('shows what stands when it is changed elsewhere', async () => {
    const { mounted } = stepper(2);
    await mounted.setProps({ shown: 4 });
    expect(mounted.get('output').text()).toBe('4');
  });
});
