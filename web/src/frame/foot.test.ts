// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';
import { defineComponent, h, ref } from 'vue';

import { read } from '@/api/queries';
import type { Finding } from '@/api/types';
import { opened } from '@/test/opened';

import { provideFoot, useNextStep } from './foot';
import type { Said } from './foot';
import FootBar from './FootBar.vue';

afterEach(() => {
  document.body.innerHTML = '';
  read.clear();
});

const said = ref<Said | undefined>();
/** A page that says what comes next, above its foot. */
const Page = defineComponent(() => {
  provideFoot();
  const Inside = defineComponent(() => {
    useNextStep(() => said.value);
    return () => h('p', 'a page');
  });
  return () => [h(Inside), h(FootBar)];
});
const finding = (change: Partial<Finding>): Finding =>
  ({
    level: 'stop',
    code: 'flaking',
    says: 'The paint is flaking.',
    layer: null,
    remedy: null,
    lifted: null,
    ...change,
  }) as Finding;

describe('the foot', () => {
  it('has the one verb that the page says, which does what it says', async () => {
    let pressed = 0;
    said.value = { verb: { text: 'Guard is right: to Box', press: () => (pressed += 1) } };
    const { mounted } = await opened(Page);
    const verbs = mounted.findAll('.btn-primary');
    expect(verbs.map((verb) => verb.text())).toEqual(['Guard is right: to Box']);
    await verbs[0]?.trigger('click');
    expect(pressed).toBe(1);
    said.value = { verb: { text: 'Weigh it', to: { name: 'weigh', params: { id: 'x' } } } };
    await flushPromises();
    expect(mounted.get('[data-test="verb"]').attributes('href')).toBe('/shipments/x/weigh');
  });

  it('tells a Stop before what the page says, with its way out', async () => {
    said.value = { verb: { text: 'Send it' }, against: { level: 'note', says: 'No service is chosen yet.' } };
    const { mounted } = await opened(Page, {}, (stored) => {
      const remedy = { label: 'Glassine instead', choices: { contact_paper: 'glassine' } };
      if (!stored.worked.plan) throw new Error('it has a plan');
      stored.worked.plan.findings = [finding({ remedy } as Partial<Finding>), finding({ code: 'other' })];
    });
    const against = mounted.get('[data-test="against"]');
    expect(against.text()).toContain('Stop: The paint is flaking. And one thing more.');
    expect(against.get('.btn').text()).toBe('Glassine instead');
  });

  it('says what the page says where nothing stops, and that nothing stands against it else', async () => {
    const calm = (stored: Parameters<NonNullable<Parameters<typeof opened>[2]>>[0]) => {
      if (stored.worked.plan) stored.worked.plan.findings = [];
    };
    said.value = { verb: { text: 'Send it' }, against: { level: 'note', says: 'No service is chosen yet.' } };
    const { mounted } = await opened(Page, {}, calm);
    expect(mounted.get('[data-test="against"]').text()).toBe('No service is chosen yet.');
    said.value = { verb: { text: 'Pack it' }, also: 'Two things are short.' };
    await flushPromises();
    expect(mounted.get('[data-test="against"]').text()).toBe(
      'Nothing stands against it. Two things are short.',
    );
  });

  it('opens its figures, and a part of the money with its lines; Escape closes them', async () => {
    said.value = { verb: { text: 'Send it' } };
    const { mounted, stored } = await opened(Page);
    const figures = mounted.get('.foot .figures');
    expect(figures.text()).toContain(stored.summary?.cost?.to_send.amount);
    expect(figures.attributes('aria-expanded')).toBe('false');
    const carrier = mounted.findAll('.foot button.part').find((part) => part.classes('carrier'));
    await carrier?.trigger('click');
    expect(figures.attributes('aria-expanded')).toBe('true');
    expect(mounted.get('#tally-sheet dl').text()).toContain(stored.summary?.cost?.carriage.amount);
    document.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }));
    await flushPromises();
    expect(figures.attributes('aria-expanded')).toBe('false');
  });
});
