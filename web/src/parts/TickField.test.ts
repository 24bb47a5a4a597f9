// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { expect, it } from 'vitest';

import TickField from './TickField.vue';
import TickList from './TickList.vue';

it('says yes and no, and never nothing, so that a rule that was unticked stays in the rules', async () => {
  const field = mount(TickField, { props: { modelValue: false, label: 'Wet', name: 'wet' } });
  const box = field.get('input');
  await box.setValue(true);
  await box.setValue(false);
  expect(field.emitted('update:modelValue')).toEqual([[true], [false]]);
});

it('has a name even where a table’s head shows it', () => {
  const field = mount(TickField, {
    props: { modelValue: true, label: 'Wet, overseas', name: 'wet', bare: true },
  });
  expect(field.get('label').text()).toBe('Wet, overseas');
  expect(field.get('label').attributes('for')).toBe(field.get('input').attributes('id'));
});

it('stands for any of a list while none is ticked, and names those that are', async () => {
  const choices = [
    { value: 'national', text: 'national' },
    { value: 'overseas', text: 'overseas' },
  ];
  const list = mount(TickList, {
    props: {
      modelValue: [],
      label: 'when it goes',
      choices,
      'onUpdate:modelValue': (modelValue: string[]) => list.setProps({ modelValue }),
    },
  });
  expect(list.get('summary').text()).toBe('any');
  await list.findAll('input')[1]?.setValue(true);
  expect(list.get('summary').text()).toBe('overseas');
  await list.findAll('input')[0]?.setValue(true);
  expect(list.props('modelValue')).toEqual(['overseas', 'national']);
  expect(list.get('summary').text()).toBe('national, overseas');
});
