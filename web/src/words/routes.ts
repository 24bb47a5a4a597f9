// What is to be done next, and at which stop.
import type { NextAct } from '@/api/types';
import type { StopName } from '@/shipment/stops';
import * as show from '@/units/show';

import { counted } from './grammar';

/** That there are more Stops than the one that is told. */
function besides(more: number): string {
  return more > 0 ? ` (and ${counted(more, 'more Stop')})` : '';
}

/** What is to be done next, and whether it is in the way of everything else. */
export function nextAct(next: NextAct): { says: string; stop: boolean } {
  switch (next.kind) {
    case 'measure':
      return { says: 'Measure the piece', stop: false };
    case 'let_it_cure':
      return {
        says:
          (next.cured_on
            ? `Stop: not cured until ${show.dayAndYear(next.cured_on)}`
            : `Stop: say when it was finished, it needs ${next.needs}`) + besides(next.more),
        stop: true,
      };
    case 'answer':
      return { says: `Stop: ${next.says}${besides(next.more)}`, stop: true };
    case 'look_at_guard':
      return { says: 'Look at Guard', stop: false };
    case 'look_at_box':
      return { says: 'Look at the box', stop: false };
    case 'say_where':
      return { says: 'Say where it goes', stop: false };
    case 'find_carrier':
      return { says: 'No carrier yet: say what sending costs', stop: false };
    case 'make_it_smaller':
      return { says: 'Stop: no service takes it', stop: true };
    case 'choose_service':
      return { says: 'Choose a service', stop: false };
    case 'pack':
      return { says: 'Ready to pack', stop: false };
    case 'look_at_packing':
      return { says: 'Look at the packing: the plan changed', stop: false };
    case 'weigh_it':
      return { says: 'Packed: weigh it', stop: false };
    case 'look_at_weight':
      return { says: 'Look at the weight', stop: false };
    case 'hand_over':
      return { says: 'Packed and weighed: send it', stop: false };
    case 'follow':
      return { says: 'On its way', stop: false };
    case 'claim':
      return { says: 'Claim it from the carrier', stop: true };
    case 'await_claim':
      return { says: 'The carrier has the claim', stop: false };
    case 'put_away':
      return { says: 'Done: put it in the archive', stop: false };
  }
}

/** The stop at which the next act is done. */
export function stopOf(next: NextAct): StopName {
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
    case 'pack':
    case 'look_at_packing':
      return 'pack';
    case 'weigh_it':
    case 'look_at_weight':
      return 'weigh';
    case 'hand_over':
      return 'send';
    case 'follow':
    case 'claim':
    case 'await_claim':
    case 'put_away':
      return 'after';
    default:
      return 'price';
  }
}
