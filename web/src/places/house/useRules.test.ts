// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils';
import { defineComponent } from 'vue';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

import { read } from '@/api/queries';
import { useStudio } from '@/api/useStudio';
import { asked, problem, serve, studio, times } from '@/test/server';

import { useRules } from './useRules';

const RULES = 'PUT /api/v1/studio/rules';
const PREVIEW = 'POST /api/v1/studio/rules/preview';

beforeEach(() => vi.useFakeTimers({ shouldAdvanceTime: true }));
afterEach(() => {
  read.clear();
  vi.useRealTimers();
});

/** The house as it is at a version, with one allowance of its own. */
function house(version: number, allowances: Record<string, number> = {}) {
  const known = studio();
  Object.assign(known.rules, { version, allowances: { ...known.rules.allowances, ...allowances } });
  return { body: known };
}

async function editing() {
  serve('GET /api/v1/studio', house(1));
  serve(PREVIEW, { body: { affected: [], looked_at: 8 } });
  let rules: ReturnType<typeof useRules> | undefined;
  mount(
    defineComponent(() => {
      rules = useRules();
      return () => null;
    }),
  );
  await useStudio().reload();
  await flushPromises();
  if (!rules) throw new Error('it was not mounted');
  return rules;
}

describe('rules while they are edited', () => {
  it('are those of the house until something is changed, and again once it is put back', async () => {
    const house = await editing();
    expect(house.changed.value).toBe(false);
    house.rules.allowances.clearance_mm = 21;
    expect(house.changed.value).toBe(true);
    house.discard();
    expect(house.changed.value).toBe(false);
    // A key that comes in another order is no change.
    house.rules.allowances = Object.fromEntries(Object.entries(house.rules.allowances).reverse());
    expect(house.changed.value).toBe(false);
  });

  it('are laid over a house that was changed elsewhere, and say so', async () => {
    const edited = await editing();
    edited.rules.allowances.clearance_mm = 21;
    serve('GET /api/v1/studio', house(2, { depth_clearance_mm: 12, clearance_mm: 30 }));
    serve(RULES, { status: 409, body: problem(409, 'the rules are newer', { type: '/problems/stale' }) });
    await edited.apply();
    await flushPromises();
    expect(edited.elsewhere.value).toBe(true);
    expect(edited.rules.version).toBe(2);
    expect(edited.rules.allowances).toMatchObject({ clearance_mm: 21, depth_clearance_mm: 12 });
    expect(edited.changed.value).toBe(true);

    edited.discard();
    expect(edited.rules.allowances).toMatchObject({ clearance_mm: 30, depth_clearance_mm: 12 });
    expect([edited.changed.value, edited.elsewhere.value]).toEqual([false, false]);
  });

  it('follow a house that was changed elsewhere when nothing is changed here', async () => {
    const edited = await editing();
    serve('GET /api/v1/studio', house(2, { clearance_mm: 30 }));
    await useStudio().reload();
    await flushPromises();
    expect(edited.rules.allowances.clearance_mm).toBe(30);
    expect([edited.changed.value, edited.elsewhere.value]).toEqual([false, false]);
  });

  it('are told what they would change, once for a quick hand', async () => {
    const edited = await editing();
    edited.rules.allowances.clearance_mm = 21;
    edited.rules.allowances.clearance_mm = 22;
    await vi.advanceTimersByTimeAsync(300);
    await flushPromises();
    expect(times(PREVIEW)).toBe(1);
    expect(asked.at(-1)?.body).toMatchObject({ rules: { allowances: { clearance_mm: 22 } } });
    expect(edited.effects.value?.looked_at).toBe(8);
  });

  it('keep what was refused, with a word at its field', async () => {
    const edited = await editing();
    const errors = [{ field: 'allowances.clearance_mm', message: 'it must be from 0 to 80 mm' }];
    serve(PREVIEW, { status: 422, body: problem(422, 'a value is out of range', { errors }) });
    edited.rules.allowances.clearance_mm = 900;
    await vi.advanceTimersByTimeAsync(300);
    await flushPromises();
    expect(edited.errors.value).toEqual({ 'allowances.clearance_mm': 'it must be from 0 to 80 mm' });
    expect(edited.rules.allowances.clearance_mm).toBe(900);
  });

  it('say that the server is away, and are kept', async () => {
    const edited = await editing();
    serve(RULES, 'away');
    edited.rules.allowances.clearance_mm = 21;
    await edited.apply();
    expect(edited.trouble.value).toBe('the server can’t be reached');
    expect(edited.rules.allowances.clearance_mm).toBe(21);
    expect(edited.busy.value).toBe(false);
  });

  it('take the rules of a preset to be looked at, under the house’s own version', async () => {
    const edited = await editing();
    edited.follow({ ...studio().rules, name: 'Lean', version: 7 });
    expect([edited.rules.name, edited.rules.version]).toEqual(['Lean', 1]);
    expect(edited.changed.value).toBe(true);
  });
});
