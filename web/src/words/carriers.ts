// Why a service does not take a parcel.
import type { Reason } from '@/api/types';
import * as show from '@/units/show';
import type { Written } from '@/units/useUnits';

type Units = Written;

/** Why a service does not take a parcel. */
export function reason(why: Reason, units: Units): string {
  switch (why.kind) {
    case 'not_served':
      return 'doesn’t deliver there';
    case 'too_heavy':
      return `${show.kilograms(why.mass_g)} is over ${show.kilograms(why.most_g)}`;
    case 'too_long':
      return `longest side ${units.length(why.longest_mm)} is over ${units.length(why.most_mm)}`;
    case 'too_wide':
      return `second side ${units.length(why.second_mm)} is over ${units.length(why.most_mm)}`;
    case 'excluded':
      return `does not take ${why.name}`;
    case 'no_format':
      return 'fits none of its containers';
    case 'not_in_force':
      if (why.from && why.to)
        return `tariff valid from ${show.dayAndYear(why.from)} to ${show.dayAndYear(why.to)}`;
      return why.from
        ? `tariff valid from ${show.dayAndYear(why.from)}`
        : `tariff expired on ${show.dayAndYear(why.to ?? '')}`;
    case 'too_large':
      return `length + girth ${units.length(why.length_plus_girth_mm)} is over ${units.length(why.most_mm)}`;
    case 'glass_refused':
      return 'doesn’t take glass';
    case 'others_carton':
      return `the box belongs to ${why.carrier}`;
    case 'no_price':
      return `has no price for ${show.kilograms(why.billable_g)}`;
  }
}
