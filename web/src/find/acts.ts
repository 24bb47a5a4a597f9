// What can be done, by the words that somebody would type for it, each with where it is done.
import type { RouteLocationRaw } from 'vue-router';

/** A stop or page of the open parcel, or a place of its own. */
type At = { of: 'parcel'; page: string } | { of: 'studio'; path: string };

export interface Act {
  name: string;
  /** What else somebody might call it. */
  words: string;
  /** What people call where it is done. */
  where: string;
  at: At;
}

const parcel =
  (page: string, where: string) =>
  (name: string, words: string): Act => ({
    name,
    words,
    where,
    at: { of: 'parcel', page },
  });
const place =
  (path: string, where: string) =>
  (name: string, words: string): Act => ({
    name,
    words,
    where,
    at: { of: 'studio', path },
  });

const [onePage, measure, guard, box, price, pack, weigh, send, after] = [
  parcel('short', 'One page'),
  parcel('measure', 'Measure'),
  parcel('guard', 'Guard'),
  parcel('box', 'Box'),
  parcel('price', 'Price'),
  parcel('pack', 'Pack'),
  parcel('weigh', 'Weigh'),
  parcel('send', 'Send'),
  parcel('after', 'After'),
];
const bench = place('/', 'Bench');

export const ACTS: readonly Act[] = [
  place('/shipments/new', 'Bench')('New parcel', 'begin start add shipment'),
  place('/again', 'Bench')('Quick parcel', 'like last time again repeat copy one more'),
  place('/orders', 'Bench')('Orders from a shop', 'import csv table list'),
  bench('Find a parcel', 'search title buyer order number shop another studio ready missing'),
  bench('Archive a parcel', 'put away restore take back'),
  bench('Delete a parcel', 'remove bin restore take back'),
  bench('Print labels of several parcels', 'together batch choose'),
  bench('Several parcels together', 'choose cut tags pack tick'),
  onePage('Change the parcel on one page', 'short fields overview'),
  onePage('Cost', 'money minutes weight total figures'),
  measure('Size', 'width height depth measure inches centimetres units'),
  measure('Address of the buyer', 'paste country postcode town name'),
  measure('Country', 'add destination abroad'),
  measure('Several pieces in one box', 'lay together order more part'),
  measure('Enclosures', 'enclosures invoice card papers besides'),
  measure('Value', 'worth price insurance'),
  measure('Promised day', 'deadline date delivery'),
  guard('Layers', 'lift change choose alternatives leave out add wrap board'),
  guard('Changes', 'safer cheaper apply undo redo'),
  guard('Warnings', 'stop mind lift a answer confirm guard'),
  guard('Preset', 'pack follow standard lean generous'),
  guard('Engineer’s view', 'drop curve cushion g stack'),
  guard('Odds of damage', 'risk hazards chance'),
  guard('Split into two parcels', 'part in two separate'),
  box('Box style', 'make carton rule choose slotted'),
  box('Bought or saved carton', 'pile reuse cut down stores'),
  box('Net and cut list', 'fold blank score sizes drawing'),
  box('Measure the wrapped piece', 'wrapped tape anew'),
  box('Materials short', 'order replace stock missing'),
  box('Cutting layout', 'sheets lay out parts'),
  parcel('wanted', 'Box')('Card of a wanted carton', 'print looking for'),
  parcel('brief', 'Box')('Brief for a crating service', 'crate large heavy'),
  price('Services', 'carrier choose compare sort'),
  price('Price bands', 'ladder step between weight'),
  price('Cover', 'insurance pays back'),
  price('Savings', 'step within reach cheaper apply'),
  price('Shipping charge', 'buyer pays charge fee'),
  price('Quotation', 'quote quoted offer typed'),
  parcel('ways', 'Price')('Every way to send it', 'compare ways'),
  pack('Pack step by step', 'bench tick done steps space pedal'),
  pack('Tick all as a list', 'steps checklist'),
  pack('Print the pack sheet', 'paper instructions'),
  pack('Photographs', 'photo picture condition'),
  pack('Next parcel of the day', 'one after the other tags'),
  weigh('Scale reading', 'weigh tare mass kilograms'),
  weigh('Send by the planned weight', 'without weighing skip'),
  send('Book the carrier', 'cancel booking collection'),
  send('Label', 'print marks'),
  send('Packing slip and condition report', 'print papers invoice'),
  send('Message to the buyer', 'write mail tracking'),
  send('Hand over', 'counter tracking number leave take back'),
  after('Outcome', 'outcome arrived damaged lost lesson'),
  after('Bill and minutes', 'invoice charged time'),
  after('Claim', 'damage compensation carrier'),
  after('Paper for customs', 'border held'),
  place('/leaving', 'Outgoing')('Outgoing parcels', 'collections counter day'),
  place('/log', 'Log')('Log', 'past sent record charts'),
  place('/materials', 'Workshop')('Materials', 'prices suppliers rolls'),
  place('/materials/in-stock', 'Workshop')('Stock', 'count in stock'),
  place('/carriers', 'Workshop')('Carriers', 'price list rates tariff new carrier'),
  place('/rules', 'Workshop')('House rules', 'questions schools numbers allowances'),
  place('/tools', 'Workshop')('Tools', 'sums estimate cutting plans'),
  place('/studio/name', 'Settings')('Settings', 'name countries money ruler backup tablets'),
];

const plain = (text: string) =>
  text
    .toLocaleLowerCase()
    .normalize('NFD')
    .replace(/[\u0300-\u036f’']/g, '');

/** The acts whose words begin with every word of a search; those whose name begins so come first, then those that are called so. */
export function found(search: string): Act[] {
  const sought = plain(search).split(/\s+/).filter(Boolean);
  if (sought.length === 0) return [];
  const holds = (text: string) => {
    const words = plain(text).split(/[^\p{L}\p{N}]+/u);
    return sought.every((begins) => words.some((word) => word.startsWith(begins)));
  };
  const begins = ({ name }: Act) => plain(name).startsWith(sought.join(' '));
  const called = ACTS.filter(({ name }) => holds(name)).toSorted(
    (one, other) => Number(begins(other)) - Number(begins(one)),
  );
  const others = ACTS.filter(
    (act) => !called.includes(act) && holds(`${act.name} ${act.words} ${act.where}`),
  );
  return [...called, ...others];
}

/** Where an act is done, for the parcel that is open. */
export function whereTo({ at }: Act, id: string): RouteLocationRaw {
  return at.of === 'parcel' ? { name: at.page, params: { id } } : at.path;
}
