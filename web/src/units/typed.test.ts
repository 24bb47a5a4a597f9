// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { describe, expect, it } from 'vitest';

import DecimalInput from '@/parts/DecimalInput.vue';

import { withPoint } from './typed';

describe('a number with a comma', () => {
  it('is kept with a point, and nothing else is touched', () => {
    expect(withPoint('6,90')).toBe('6.90');
    expect(withPoint('6.90')).toBe('6.90');
    // One of them parts thousands; which one is not guessed.
    expect(withPoint('1,234.5')).toBe('1,234.5');
    expect(withPoint('1,2,3')).toBe('1,2,3');
    expect(withPoint('nine')).toBe('nine');
  });

  it('is taken in the field of a sum', async () => {
    const field = mount(DecimalInput, { props: { modelValue: '', name: 'fuel_percent' } });
    await field.find('input').setValue('7,5');
    expect(field.emitted('update:modelValue')).toEqual([['7.5']]);
    expect(field.find('input').attributes('name')).toBe('fuel_percent');
  });
});
