// A zone's name stands in its own line, over the columns of prices and in conditions: they change together.
import type { TariffSheet, WhenSheet } from '@/api/types';

function eachWhen(sheet: TariffSheet): WhenSheet[] {
  const of = (rules: readonly { when: WhenSheet }[]) => rules.map(({ when }) => when);
  return [
    ...of(sheet.rules),
    ...sheet.services.flatMap((service) => [
      ...of(service.rules),
      ...of(service.refuses),
      ...of(service.cover.exclusions),
    ]),
  ];
}
const tables = (sheet: TariffSheet) =>
  sheet.services.flatMap((service) => [service.prices, ...service.formats.map(({ prices }) => prices)]);

/** A price list with a zone under another name. */
export function renamed(sheet: TariffSheet, at: number, name: string): TariffSheet {
  const then = structuredCopy(sheet);
  const zone = then.zones[at];
  if (!zone) return then;
  const was = zone.name;
  zone.name = name;
  // Another zone of that name keeps what is its own.
  if (then.zones.some((one) => one.name === was)) return then;
  for (const table of tables(then))
    for (const column of table.zones) if (column.zone === was) column.zone = name;
  for (const when of eachWhen(then))
    for (const one of when.of) if (one.kind === 'zone') one.is = one.is.map((is) => (is === was ? name : is));
  return then;
}

/** A price list without a zone, and without the prices for it. */
export function without(sheet: TariffSheet, at: number): TariffSheet {
  const then = structuredCopy(sheet);
  const [gone] = then.zones.splice(at, 1);
  for (const table of tables(then)) table.zones = table.zones.filter(({ zone }) => zone !== gone?.name);
  return then;
}

/** The same once more, of its own. */
export function structuredCopy<T>(value: T): T {
  return JSON.parse(JSON.stringify(value)) as T;
}
