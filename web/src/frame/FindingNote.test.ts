// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

import { read } from '@/api/queries';
import type { Finding } from '@/api/types';
import { opened } from '@/test/opened';
import { asked, serve } from '@/test/server';

import FindingNote from './FindingNote.vue';

const stop: Finding = {
  code: 'uncured',
  level: 'stop',
  layer: null,
  says: 'The paint has not cured.',
  lifted: null,
  remedy: null,
} as unknown as Finding;

beforeEach(() => vi.useFakeTimers({ shouldAdvanceTime: true }));
afterEach(() => {
  document.body.innerHTML = '';
  read.clear();
  vi.useRealTimers();
});

async function noted(finding: Partial<Finding>) {
  const shown = await opened(FindingNote, { finding: { ...stop, ...finding } });
  const { stored } = shown;
  const patch = `PATCH /api/v1/shipments/${stored.id}`;
  serve(patch, ({ body }) => {
    const change = (body as { change: object }).change;
    return { body: { ...stored, version: stored.version + 1, inputs: { ...stored.inputs, ...change } } };
  });
  const sent = async () => {
    await vi.advanceTimersByTimeAsync(1500);
    await flushPromises();
    return asked.filter(({ what }) => what === patch).at(-1)?.body as { change: object } | undefined;
  };
  return { ...shown, sent };
}

describe('a finding', () => {
  it('says how grave it is, in words', async () => {
    for (const [level, word] of [
      ['stop', 'Stop'],
      ['mind', 'Worth a look'],
      ['note', 'Good to know'],
    ] as const) {
      const { mounted } = await noted({ level });
      expect(mounted.get('strong').text()).toBe(word);
      mounted.unmount();
    }
  });

  it('is answered by pressing what it offers', async () => {
    const remedy = { label: 'Use Corrugated C', choices: { box_board: 'corrugated-c' } };
    const { mounted, sent } = await noted({ level: 'mind', remedy } as Partial<Finding>);
    await mounted.get('.btn').trigger('click');
    expect(await sent()).toMatchObject({ change: { choices: { box_board: 'corrugated-c' } } });
  });

  it('that stops is lifted only for a reason, which is kept while it is half written', async () => {
    const { mounted, sent } = await noted({});
    await mounted.get('.plain').trigger('click');
    const go = () => mounted.get('form button[type="submit"]');
    expect(go().attributes('disabled')).toBeDefined();
    await mounted.get('[name="reason"]').setValue('no');
    expect(go().attributes('disabled')).toBeDefined();
    await mounted.get('[name="reason"]').setValue('the buyer collects it wet');
    expect(go().attributes('disabled')).toBeUndefined();
    await mounted.get('form').trigger('submit');
    expect(await sent()).toMatchObject({ change: { lifted: { uncured: 'the buyer collects it wet' } } });
    expect(mounted.find('form').exists()).toBe(false);
  });

  it('that was lifted says why, and stops again', async () => {
    const { mounted } = await noted({ lifted: 'the buyer collects it wet' });
    expect(mounted.get('.reason').text()).toContain('Lifted: the buyer collects it wet');
    expect(mounted.get('.reason button').text()).toBe('Stop for this again');
  });
});
