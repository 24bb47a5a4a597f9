// The rules of a tariff in words.
import type { When, What } from '@/api/types';
import { kilograms } from '@/units/show';
import type { useUnits } from '@/units/useUnits';

type Units = ReturnType<typeof useUnits>;

const SHAPE = { rectangular: 'a box', tube: 'a round tube', triangular: 'a three-sided tube' } as const;
const CONTENT = {
  glass: 'glass',
  paper: 'a work on paper',
  painting: 'a painting',
  double_boxed: 'a second box',
} as const;
const LITRES = 1000;

/** A condition, as one would say it. */
export function condition(when: When, units: Units): string {
  switch (when.kind) {
    case 'always':
      return 'always';
    case 'all':
      return when.of.map((one) => condition(one, units)).join(' and ');
    case 'any':
      return when.of.map((one) => condition(one, units)).join(' or ');
    case 'longest_over':
      return `longest side over ${units.length(when.over_mm)}`;
    case 'second_over':
      return `second side over ${units.length(when.over_mm)}`;
    case 'shortest_over':
      return `shortest side over ${units.length(when.over_mm)}`;
    case 'girth_over':
      return `girth over ${units.length(when.over_mm)}`;
    case 'length_plus_girth_over':
      return `length + girth over ${units.length(when.over_mm)}`;
    case 'volume_over':
      return `over ${when.over_m3 * LITRES} litres`;
    case 'mass_over':
      return `weighs over ${kilograms(when.over_g)}`;
    case 'billable_over':
      return `billed over ${kilograms(when.over_g)}`;
    case 'glass':
      return 'glass inside';
    case 'shape':
      return when.is.map((shape) => SHAPE[shape]).join(' or ');
    case 'contents':
      return `${when.any_of.map((one) => CONTENT[one]).join(' or ')} inside`;
    case 'without':
      return `without ${when.any_of.map((one) => CONTENT[one]).join(' or ')}`;
    case 'zone':
      return `to ${when.is.join(' or ')}`;
    case 'postcode':
      return `postcode ${when.prefixes.join(', ')}`;
    case 'value_over':
      return `worth over ${when.over}`;
  }
}

const BY = {
  longest: 'by the longest side',
  second: 'by the second side',
  shortest: 'by the shortest side',
  girth: 'by the girth',
  length_plus_girth: 'by length + girth',
  volume: 'by volume',
  mass: 'by what it weighs',
  billable: 'by what is billed',
} as const;

/** What a rule does, as one would say it. */
export function effect(what: What): string {
  switch (what.kind) {
    case 'sum':
      return what.price;
    case 'per_kg':
      return `${what.price} for each kg begun${what.of === 'actual' ? ', as weighed' : ''}`;
    case 'percent':
      return `${what.percent} % of ${what.of.join(', ')}`;
    case 'minimum':
      return `billed as at least ${kilograms(what.billable_g)}`;
    case 'steps':
      return `${BY[what.by]}, in ${String(what.steps.length)} steps`;
  }
}
