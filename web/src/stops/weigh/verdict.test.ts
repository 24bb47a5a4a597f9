import { describe, expect, it } from 'vitest';

import demo from '@/test/demo.json';
import type { Plan } from '@/api/types';
import type { useUnits } from '@/units/useUnits';

import { stackOf } from './stack';
import { explanations, verdictWords } from './verdict';

type Units = ReturnType<typeof useUnits>;

const planned = { mass_g: 3420, plus_minus_g: 110 };

describe('what a reading says', () => {
  it('is as planned within the doubt of the plan', () => {
    const verdict = { planned, read_g: 3500, off_g: 80, as_planned: true, explained: [] };
    expect(verdictWords(verdict)).toBe(
      'Planned 3.42\u00a0kg ± 0.11\u00a0kg, weighs 3.50\u00a0kg: as planned.',
    );
  });

  it('says by how much it is off, and what would make that', () => {
    const explained = [{ says: 'double wall in place of single wall for the box', makes_g: 210 }];
    const verdict = { planned, read_g: 3610, off_g: 190, as_planned: false, explained };
    expect(verdictWords(verdict)).toContain('190\u00a0g more than the plan explains.');
    expect(explanations(verdict)).toEqual(['double wall in place of single wall for the box (+210\u00a0g)']);
    expect(verdictWords({ ...verdict, off_g: -1200 })).toContain('1.20\u00a0kg less than');
  });
});

describe('the stack of masses', () => {
  const plan = demo.shipment.worked.plan as unknown as Plan;
  const units = {
    number: String,
    length: String,
    size: (...sides: number[]) => sides.join('×'),
  } as unknown as Units;

  it('adds up to the plan, block on block', () => {
    const { blocks, planned: band } = stackOf(plan, units);
    expect(blocks).toHaveLength(plan.layers.length + 1);
    for (const [at, block] of blocks.entries()) {
      expect(block.from).toBeCloseTo(blocks[at - 1]?.to ?? 0, 9);
      expect(block.to).toBeGreaterThanOrEqual(block.from);
    }
    expect(blocks.at(-1)?.to).toBeCloseTo(band.at, 9);
    expect(band.to).toBeLessThan(1);
  });

  it('makes room for a reading over everything', () => {
    const read = plan.tally.weight.mass_g * 3;
    expect(stackOf(plan, units, read).read).toBeCloseTo(1 / 1.06, 9);
  });
});
