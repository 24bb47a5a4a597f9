import { effectScope, ref } from 'vue';
import { expect, it, vi } from 'vitest';

import { lookedAt } from './looked';

it('a part is left out until somebody looks, and again once nobody does', async () => {
  const ask = vi.fn();
  const looked = lookedAt(ask);
  expect(looked.without()).toEqual(['survival', 'lines', 'slots']);
  const open = ref(false);
  const [one, other] = [effectScope(), effectScope()];
  one.run(() => looked.look('survival', open));
  other.run(() => looked.look('survival', true));
  expect(ask).toHaveBeenCalledTimes(1);
  expect(looked.without()).toEqual(['lines', 'slots']);
  open.value = true;
  await Promise.resolve();
  expect(ask).toHaveBeenCalledTimes(2);
  other.stop();
  expect(looked.without()).toEqual(['lines', 'slots']);
  one.stop();
  expect(looked.without()).toEqual(['survival', 'lines', 'slots']);
});
