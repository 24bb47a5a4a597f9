// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { defineComponent, nextTick } from 'vue';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';

import { useSaid, vSay } from './say';

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

const Notice = defineComponent({
  directives: { say: vSay },
  props: { text: { type: String, default: '' } },
  template: '<p v-if="text" v-say>{{ text }}</p>',
});

it('reads out what appears, and what changes, when it is quiet', async () => {
  const notice = mount(Notice, { props: { text: 'the width is missing' } });
  await notice.setProps({ text: 'the height is missing' });
  await nextTick();
  expect(useSaid().aloud.value).toBe('');
  await vi.runAllTimersAsync();
  expect(useSaid().aloud.value).toBe('the width is missing. the height is missing');

  // A page that is drawn again with the same words says nothing again.
  useSaid().aloud.value = '';
  notice.vm.$forceUpdate();
  await vi.runAllTimersAsync();
  expect(useSaid().aloud.value).toBe('');
});

it('says a text that waits already only once', async () => {
  useSaid().say('kept in this page');
  useSaid().say('kept in this page');
  await vi.runAllTimersAsync();
  expect(useSaid().aloud.value).toBe('kept in this page');
});
