// The words for what the core names by a key.
import type { Layer, MakeOf, NextAct, Reason } from '@/api/types';
import * as show from '@/units/show';
import type { useUnits } from '@/units/useUnits';

type Units = ReturnType<typeof useUnits>;

export const CONSTRUCTIONS = [
  { value: 'stretched_canvas', text: 'Stretched canvas' },
  { value: 'cradled_panel', text: 'Cradled panel' },
  { value: 'framed_under_glass', text: 'Framed under glass' },
] as const;

export const MEDIA = [
  { value: 'oil', text: 'Oil' },
  { value: 'oil_fast_drying', text: 'Oil with a fast-drying medium' },
  { value: 'acrylic', text: 'Acrylic' },
  { value: 'watercolour', text: 'Gouache or watercolour' },
  { value: 'encaustic', text: 'Encaustic' },
  { value: 'print', text: 'Print' },
  { value: 'pastel_or_charcoal', text: 'Pastel or charcoal' },
] as const;

export const PAINTS = [
  { value: 'thin', text: 'Thin' },
  { value: 'raised', text: 'Raised marks' },
  { value: 'impasto', text: 'Impasto' },
] as const;

/** The words of a choice, for a sentence. */
export function worded(
  choices: readonly { value: string; text: string }[],
  value: string | null | undefined,
): string {
  return choices.find((choice) => choice.value === value)?.text.toLowerCase() ?? '';
}

/** What is to be done next, and whether it is in the way of everything else. */
export function nextAct(next: NextAct): { says: string; stop: boolean } {
  switch (next.kind) {
    case 'measure':
      return { says: 'Measure the piece', stop: false };
    case 'let_it_cure':
      return {
        says: next.cured_on
          ? `Stop: not cured until ${show.dayAndYear(next.cured_on)}`
          : `Stop: say when it was finished, it needs ${next.needs}`,
        stop: true,
      };
    case 'answer':
      return { says: `Stop: ${next.says}`, stop: true };
    case 'look_at_guard':
      return { says: 'Look at Guard', stop: false };
    case 'look_at_box':
      return { says: 'Look at the box', stop: false };
    case 'say_where':
      return { says: 'Say where it goes', stop: false };
    case 'make_it_smaller':
      return { says: 'Stop: no service takes it', stop: true };
    case 'choose_service':
      return { says: 'Choose a service', stop: false };
    case 'pack':
      return { says: 'Ready to pack', stop: false };
  }
}

/** The stop at which the next act is done. */
export function stopOf(next: NextAct): 'measure' | 'guard' | 'box' | 'price' {
  switch (next.kind) {
    case 'measure':
    case 'let_it_cure':
    case 'say_where':
      return 'measure';
    case 'answer':
    case 'look_at_guard':
      return 'guard';
    case 'look_at_box':
      return 'box';
    default:
      return 'price';
  }
}

/** Why a service does not take a parcel. */
export function reason(why: Reason, units: Units): string {
  switch (why.kind) {
    case 'not_served':
      return 'does not go there';
    case 'too_heavy':
      return `${show.kilograms(why.mass_g)} is over ${show.kilograms(why.most_g)}`;
    case 'too_long':
      return `longest side ${units.length(why.longest_mm)} is over ${units.length(why.most_mm)}`;
    case 'too_large':
      return `length + girth ${units.length(why.length_plus_girth_mm)} is over ${units.length(why.most_mm)}`;
    case 'glass_refused':
      return 'takes no glass';
    case 'no_price':
      return `has no price for ${show.kilograms(why.billable_g)}`;
  }
}

const COUNT = ['no', 'one', 'two', 'three', 'four', 'five', 'six'] as const;

/** A small number as a word. */
export function count(number: number): string {
  return COUNT[number] ?? String(number);
}

/** A number of things: `one turn`, `two turns`. */
export function counted(number: number, thing: string): string {
  return `${count(number)} ${thing}${number === 1 ? '' : 's'}`;
}

interface LayerWords {
  name: string;
  make: string;
}

/** What a layer is called, and its dimensions in short. */
export function layerWords(layer: Layer, units: Units): LayerWords {
  const { make, material_name: material } = layer;
  switch (make.kind) {
    case 'contact_sheet':
      return {
        name: `${material}, face and edges`,
        make: `${units.size(make.sheet_width_mm, make.sheet_height_mm)}, ${counted(make.strips, 'strip')}`,
      };
    case 'card_pockets':
      return {
        name: 'Four folded corners',
        make: `leg ${units.number(make.leg_mm)}, walls ${units.number(make.wall_a_mm)} and ${units.length(make.wall_b_mm)}`,
      };
    case 'face_boards':
      return {
        name: make.behind ? 'Boards, front and back' : 'Board in front',
        make: `${units.size(make.width_mm, make.height_mm)}, ${units.length(make.proud_mm)} proud`,
      };
    case 'wrap':
      return {
        name: `${material}, ${counted(make.turns, 'turn')}`,
        make: `${make.direction === 'up' ? 'top to bottom' : 'side to side'}, ${make.strips > 1 ? `${count(make.strips)} strips, ` : ''}${units.size(make.length_mm, make.width_mm)}`,
      };
    case 'edge_fill':
      return {
        name: `${material}, edges and behind`,
        make: `${units.number(make.clearance_mm)} a side, ${units.length(make.behind_mm)} behind, ${Math.ceil(make.loose_m3 * 1000)} litres`,
      };
    case 'slotted_box':
      return { name: 'Slotted box', make: boxWords(make, material, units) };
  }
}

function boxWords(make: MakeOf<'slotted_box'>, material: string, units: Units): string {
  return `${material}, blank ${units.size(make.blank.width_mm, make.blank.height_mm)}`;
}
