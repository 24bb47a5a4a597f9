import { createGlobalState, useLocalStorage } from '@vueuse/core';
import { computed } from 'vue';

import type { LengthUnit } from '@/api/types';
import { ofStudio } from '@/kept/studio';

import * as show from './show';

export const UNITS: readonly LengthUnit[] = ['mm', 'cm', 'in'];

/** The unit that lengths are shown and typed in, kept for this browser; and lengths written in it. */
export const useUnits = createGlobalState(() => {
  const chosen = useLocalStorage<LengthUnit | ''>('hummock.unit', '');
  const house = useLocalStorage<LengthUnit>(ofStudio('house-unit'), 'mm');
  const unit = computed<LengthUnit>({
    get: () => (UNITS.includes(chosen.value as LengthUnit) ? (chosen.value as LengthUnit) : house.value),
    set: (next) => {
      chosen.value = next;
    },
  });

  return {
    unit,
    /** What the studio uses, until somebody here chooses another. */
    house,
    next: () => {
      unit.value = UNITS[(UNITS.indexOf(unit.value) + 1) % UNITS.length] ?? 'mm';
    },
    length: (mm: number) => show.length(mm, unit.value),
    number: (mm: number) => show.lengthNumber(mm, unit.value),
    signed: (mm: number) => show.signedLength(mm, unit.value),
    /** A drop height: centimetres, as people speak of falls, or inches. */
    height: (mm: number, withUnit = false) => show.height(mm, unit.value, withUnit),
    size: (...sides: number[]) => show.size(sides, unit.value),
  };
});
