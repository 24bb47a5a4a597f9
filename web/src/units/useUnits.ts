import { createGlobalState, useEventListener, useLocalStorage } from '@vueuse/core';
import { computed, ref } from 'vue';

import type { LengthUnit } from '@/api/types';
import { ofStudio } from '@/kept/studio';

import * as show from './show';

export const UNITS: readonly LengthUnit[] = ['mm', 'cm', 'in'];

/** Lengths written in a unit. */
export interface Written {
  length: (mm: number) => string;
  number: (mm: number) => string;
  signed: (mm: number) => string;
  /** A drop height: centimetres, as people speak of falls, or inches. */
  height: (mm: number, withUnit?: boolean) => string;
  size: (...sides: number[]) => string;
  /** A length of tape or strip, as it comes off a roll. */
  run: (mm: number) => string;
  area: (m2: number) => string;
}

const writtenIn = (unit: () => LengthUnit): Written => ({
  length: (mm) => show.length(mm, unit()),
  number: (mm) => show.lengthNumber(mm, unit()),
  signed: (mm) => show.signedLength(mm, unit()),
  height: (mm, withUnit = false) => show.height(mm, unit(), withUnit),
  size: (...sides) => show.size(sides, unit()),
  run: (mm) => show.run(mm, unit()),
  area: (m2) => show.area(m2, unit()),
});

/** The unit that lengths are shown and typed in, kept for this browser; and lengths written in it. */
export const useUnits = createGlobalState(() => {
  const chosen = useLocalStorage<LengthUnit | ''>('hummock.unit', '');
  const house = useLocalStorage<LengthUnit>(ofStudio('house-unit'), 'mm');
  // What is printed is in the studio's unit, whichever somebody looks at here.
  const printing = ref(false);
  useEventListener('beforeprint', () => {
    printing.value = true;
  });
  useEventListener('afterprint', () => {
    printing.value = false;
  });
  const unit = computed<LengthUnit>({
    get: () =>
      !printing.value && UNITS.includes(chosen.value as LengthUnit)
        ? (chosen.value as LengthUnit)
        : house.value,
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
    /** A sheet that is there to be printed is in the studio's unit on the screen too. */
    onPaper: writtenIn(() => house.value),
    ...writtenIn(() => unit.value),
  };
});
