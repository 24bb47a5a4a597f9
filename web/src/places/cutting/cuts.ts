// The parts and cuts of a layout in words.
import type { BatchSheet, LaidPart, SheetCut } from '@/api/types';
import { capital } from '@/words/grammar';
import type { Written } from '@/units/useUnits';

type Units = Written;

const LETTERS = 'ABCDEFGHJKLMNPQRSTUVW';

/** A letter for each shipment, where there are several. */
export const letterOf = (shipment: number): string => LETTERS[shipment] ?? '?';

/** What a part is, in its layer. */
export function partName({ layer, name, joined }: LaidPart): string {
  const said = layer.includes(name) ? layer : name.includes(layer) ? name : `${layer}: ${name}`;
  return `${capital(said)}${joined ? ', joined' : ''}`;
}

/** A cut, as one says it over the sheet. */
export function cutWords(
  { upright, at_mm, from_mm, to_mm }: SheetCut,
  sheet: BatchSheet,
  units: Units,
): string {
  const from = upright ? 'from the left' : 'from below';
  const whole = upright ? sheet.height_mm : sheet.width_mm;
  const across = from_mm <= 0.05 && to_mm >= whole - 0.05;
  const side = upright ? 'up' : 'across';
  const stretch = across
    ? `the whole ${upright ? 'height' : 'width'}`
    : `${side} from ${units.number(from_mm)} to ${units.length(to_mm)}`;
  return `${units.length(at_mm)} ${from}, ${stretch}`;
}
