// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, expect, it } from 'vitest';
import { nextTick } from 'vue';

import { read } from '@/api/queries';
import { opened } from '@/test/opened';

import NotTaken from './NotTaken.vue';

afterEach(() => {
  document.body.innerHTML = '';
  read.clear();
});

async function looked(): Promise<void> {
  await flushPromises();
  await nextTick();
}

it('shows what is not taken where its field is not on the page, and lets it go', async () => {
  const { mounted, open } = await opened(NotTaken);
  await looked();
  expect(mounted.find('[data-test="not-taken"]').exists()).toBe(false);
  open.text('piece.count').value = 'three';
  await looked();
  expect(mounted.text()).toContain('Not saved yet: how many, “three”.');
  expect(mounted.get('a').attributes('href')).toBe(`/shipments/${open.id}/measure`);
  expect(open.state.value).toBe('refused');
  await mounted.get('button').trigger('click');
  await looked();
  expect(mounted.find('[data-test="not-taken"]').exists()).toBe(false);
  expect(open.state.value).toBe('saved');
});

it('leaves a field that is on the page to speak for itself', async () => {
  const { mounted, open } = await opened(NotTaken);
  document.body.insertAdjacentHTML('beforeend', '<input name="piece.count" />');
  open.text('piece.count').value = 'three';
  await looked();
  expect(mounted.find('[data-test="not-taken"]').exists()).toBe(false);
});

it('says nothing of a reason that is half written', async () => {
  const { mounted, open } = await opened(NotTaken);
  open.text('reason.cure').value = 'the buyer';
  await looked();
  expect(mounted.find('[data-test="not-taken"]').exists()).toBe(false);
});
