// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';
import { defineComponent, h, ref } from 'vue';

import { read } from '@/api/queries';
import type { Finding, Matter } from '@/api/types';
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

const matter = (change: Partial<Matter>): Matter => ({
  kind: 'mind',
  level: 'mind',
  says: '',
  at: 'guard',
  code: null,
  ...change,
});

describe('the foot', () => {
  it('has the one verb that the page says, which does what it says', async () => {
    let pressed = 0;
    said.value = { verb: { text: 'Continue to Box', press: () => (pressed += 1) } };
    const { mounted } = await opened(Page);
    const verbs = mounted.findAll('.btn-primary');
    expect(verbs.map((verb) => verb.text())).toEqual(['Continue to Box']);
    await verbs[0]?.trigger('click');
    expect(pressed).toBe(1);
    said.value = { verb: { text: 'Weigh it', to: { name: 'weigh', params: { id: 'x' } } } };
    await flushPromises();
    expect(mounted.get('[data-test="verb"]').attributes('href')).toBe('/shipments/x/weigh');
  });

  it('tells what is in the way as the server does, a Stop with its way out, and the hint of the page below', async () => {
    said.value = { verb: { text: 'Send it' }, hint: { says: 'No service is chosen yet.' } };
    const { mounted } = await opened(Page, {}, (stored) => {
      const remedy = { label: 'Glassine instead', choices: { contact_paper: 'glassine' } };
      if (!stored.worked.plan) throw new Error('it has a plan');
      stored.worked.plan.findings = [finding({ remedy } as Partial<Finding>)];
      stored.against = [
        matter({ kind: 'stop', level: 'stop', says: 'The paint is flaking.', code: 'flaking' }),
        matter({ kind: 'late', says: 'May arrive after the promised day, 8 Dec.' }),
        matter({ kind: 'short', says: '1 material short: Glassine.' }),
      ];
    });
    const against = mounted.get('[data-test="against"]');
    expect(against.get('p').text()).toMatch(/^Stop: The paint is flaking\.\s+\+2 more$/);
    expect(against.get('.btn').text()).toBe('Glassine instead');
    expect(mounted.get('[data-test="hint"]').text()).toBe('No service is chosen yet.');
    expect(mounted.find('.btn-primary').exists()).toBe(false);
  });

  it('is ready where nothing is in the way and the page hints at nothing', async () => {
    const calm = (stored: Parameters<NonNullable<Parameters<typeof opened>[2]>>[0]) => {
      stored.against = [];
    };
    said.value = { verb: { text: 'Pack it' } };
    const { mounted } = await opened(Page, {}, calm);
    expect(mounted.find('[data-test="against"]').exists()).toBe(false);
    expect(mounted.get('[data-test="hint"]').text()).toBe('Ready');
    said.value = { verb: { text: 'Pack it' }, hint: { says: 'Packed.' } };
    await flushPromises();
    expect(mounted.get('[data-test="hint"]').text()).toBe('Packed.');
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
