import { describe, expect, it } from 'vitest';

import { studio } from '@/test/server';

import { found, partOf, PARTS, rulesOf } from './parts';

describe('the house rules in parts', () => {
  it('finds a rule by any of its words, those that are called so first', () => {
    const rules = rulesOf(studio(), {});
    const [first] = found(rules, 'overhead');
    expect(first).toMatchObject({ part: 'allowances', at: '[name="allowances.overhead_percent"]' });
    // Only its reason speaks of rent.
    expect(found(rules, 'RENT tools').map(({ at }) => at)).toContain('[name="allowances.overhead_percent"]');
    expect(found(rules, 'padding')[0]).toMatchObject({ part: 'questions' });
    expect(found(rules, '  ')).toEqual([]);
    expect(found(rules, 'no such rule anywhere')).toEqual([]);
  });

  it('leaves out what custom settles, as long as nobody changed it', () => {
    const finds = (numbers: Record<string, number>) =>
      found(rulesOf(studio(), numbers), 'safety of a stack').map(({ at }) => at);
    const { default: usual } = studio().allowances.find(({ key }) => key === 'stack_safety') ?? {};
    expect(finds({ stack_safety: usual ?? 0 })).toEqual([]);
    expect(finds({ stack_safety: 6 })).toEqual(['[name="allowances.stack_safety"]']);
  });

  it('knows the part of every refused value', () => {
    expect(partOf('allowances.clearance')).toBe('allowances');
    expect(partOf('enclosures.0.0.name')).toBe('bench');
    expect(partOf('odds.record')).toBe('odds');
    expect(partOf('begin.0.from')).toBe('beginnings');
    expect(PARTS.map(({ key }) => key)).toContain(partOf('something else'));
  });
});
