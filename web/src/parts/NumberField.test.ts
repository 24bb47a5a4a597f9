// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { describe, expect, it } from 'vitest';

import NumberField from './NumberField.vue';

function field(modelValue: number | null) {
  const mounted = mount(NumberField, { props: { label: 'Count', name: 'piece.count', modelValue } });
  const type = (text: string) => mounted.get('input').setValue(text);
  const shown = () => (mounted.get('input').element as HTMLInputElement).value;
  return { mounted, type, shown };
}

describe('a number field', () => {
  it('hands on what is a number, with a point or a comma', async () => {
    const { mounted, type, shown } = field(null);
    for (const text of ['12', '1.', '1,5', '']) await type(text);
    expect(mounted.emitted('update:modelValue')).toEqual([[12], [1], [1.5], [null]]);
    expect(shown()).toBe('');
  });

  it('keeps what is no number, and says so', async () => {
    const { mounted, type, shown } = field(3);
    await type('three');
    expect(shown()).toBe('three');
    expect(mounted.get('.error').text()).toBe('“three” is not a number');
    expect(mounted.emitted('update:modelValue')).toBeUndefined();
    await type('4');
    expect(mounted.find('.error').exists()).toBe(false);
  });

  it('follows a number that is changed elsewhere', async () => {
    const { mounted, shown } = field(3);
    await mounted.setProps({ modelValue: 7 });
    expect(shown()).toBe('7');
  });
});
