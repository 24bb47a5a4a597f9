// @vitest-environment happy-dom
import { expect, it } from 'vitest';

import { useUnits } from './useUnits';

it('gives way to the studio’s unit while something is printed', () => {
  const { house, length, unit } = useUnits();
  house.value = 'in';
  unit.value = 'mm';
  expect(length(25.4)).toBe('25\u00a0mm');
  window.dispatchEvent(new Event('beforeprint'));
  expect(length(25.4)).toBe('1\u00a0in');
  window.dispatchEvent(new Event('afterprint'));
  expect(length(25.4)).toBe('25\u00a0mm');
});
