import { describe, expect, it } from 'vitest';

import type { BatchSheet, LaidPart, SheetCut } from '@/api/types';
import * as show from '@/units/show';
import type { useUnits } from '@/units/useUnits';

import { cutWords, letterOf, partName } from './cuts';

const mm = {
  length: (side: number) => show.length(side, 'mm'),
  number: (side: number) => show.lengthNumber(side, 'mm'),
} as ReturnType<typeof useUnits>;
const sheet = { width_mm: 1600, height_mm: 1200 } as BatchSheet;
const part = (layer: string, name: string, joined = false) => ({ layer, name, joined }) as LaidPart;

describe('a layout in words', () => {
  it('says from where a cut is measured, and how far it runs', () => {
    const cut = (upright: boolean, at_mm: number, from_mm: number, to_mm: number): SheetCut => ({
      n: 1,
      upright,
      at_mm,
      from_mm,
      to_mm,
    });
    // Across a sheet of 1600 × 1200: right up it is 1200, right across 1600.
    expect(cutWords(cut(true, 1210, 0, 1200), sheet, mm)).toBe(
      '1210\u00a0mm from the left, the whole height',
    );
    expect(cutWords(cut(false, 910, 0, 1600), sheet, mm)).toBe('910\u00a0mm from below, the whole width');
    expect(cutWords(cut(false, 910, 0, 1210), sheet, mm)).toBe(
      '910\u00a0mm from below, across from 0 to 1210\u00a0mm',
    );
  });

  it('names a part by its layer once, and says that it is joined', () => {
    expect(partName(part('face boards', 'board'))).toBe('Face boards');
    expect(partName(part('corner protectors', 'corner pocket'))).toBe('Corner protectors: corner pocket');
    expect(partName(part('box', 'outer half of the box', true))).toBe('Outer half of the box, joined');
  });

  it('leaves out letters that are read as numbers', () => {
    const letters = Array.from({ length: 21 }, (_, at) => letterOf(at));
    expect(letters).not.toContain('I');
    expect(letters).not.toContain('O');
    expect(new Set(letters).size).toBe(21);
  });
});
