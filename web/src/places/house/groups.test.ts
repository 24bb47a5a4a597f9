import { describe, expect, it } from 'vitest';

import type { Allowance } from '@/api/types';

import { grouped } from './groups';

const allowance = (key: string) => ({ key }) as Allowance;

describe('allowances', () => {
  it('are grouped by the work, each once, minutes last', () => {
    const keys = [
      'contact_turn_mm',
      'wrap_turn_minutes',
      'piece_doubt',
      'clearance_mm',
      'board_proud_mm',
      'board_value',
    ];
    const groups = grouped(keys.map(allowance));
    expect(groups.map(({ name }) => name)).toEqual([
      'Contact sheet and tape',
      'Corners and boards',
      'Fit and fill',
      'Limits',
      'How sure a weight is',
      'Minutes',
    ]);
    expect(groups.flatMap(({ allowances }) => allowances)).toHaveLength(keys.length);
  });
});
