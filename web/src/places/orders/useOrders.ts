// Orders out of a shop's table: how it is read, what came of each row, and how far it is.
import { watchDebounced } from '@vueuse/core';
import Papa from 'papaparse';
import { computed, ref, shallowRef, watch } from 'vue';
import type { Ref } from 'vue';

import { answer, api } from '@/api/client';
import type { HeadView, OrderColumns, OrderView } from '@/api/types';

/** So many rows are sent at a time, so that it can be seen how far it is. */
const AT_A_TIME = 50;
/** So many the server takes at once. */
const MOST_AT_A_TIME = 100;
/** So many rows say how days are written. */
const SAMPLE = 100;
const SETTLED_MS = 400;

export type Column = keyof OrderColumns;
export type Row = Record<string, string>;
type Columns = Record<Column, string>;

/** What a column may hold, in the order in which it is shown. */
export const COLUMNS: Record<Column, string> = {
  number: 'Order number',
  name: 'Who gets it',
  street: 'Street',
  postcode: 'Postcode',
  town: 'Town',
  country: 'Country',
  title: 'Piece',
  sku: 'Product code (SKU)',
  kind: 'Type of piece',
  medium: 'Medium',
  size: 'Size',
  width: 'Width',
  height: 'Height',
  depth: 'Depth',
  unit: 'Unit of the sides',
  count: 'How many',
  value: 'Sold for',
  shipping_paid: 'Paid for carriage',
  promised: 'Promised for',
  note: 'Buyer’s note',
};
export const ALL_COLUMNS = Object.keys(COLUMNS) as Column[];
const nothingNamed = () => Object.fromEntries(ALL_COLUMNS.map((column) => [column, ''])) as Columns;

/** Reads a table by its head; rows with nothing in them are none. */
export function tableOf(csv: string): { head: string[]; rows: Row[] } {
  const { data, meta } = Papa.parse<Row>(csv.trim(), { header: true, skipEmptyLines: 'greedy' });
  const whole = (row: Row) =>
    Object.fromEntries(Object.entries(row).filter(([name, text]) => name && typeof text === 'string'));
  return { head: (meta.fields ?? []).filter(Boolean), rows: data.map(whole) };
}

/** Parts rows for sending; the rows of one order stay together, so that the server sees that they are one. */
export function parted(rows: readonly Row[], number: string | null): Row[][] {
  const parts: Row[][] = [];
  for (const [at, row] of rows.entries()) {
    const last = parts.at(-1);
    const isSame = number !== null && Boolean(row[number]) && rows[at - 1]?.[number] === row[number];
    if (last && (last.length < AT_A_TIME || (isSame && last.length < MOST_AT_A_TIME))) last.push(row);
    else parts.push([row]);
  }
  return parts;
}

const why = (error: unknown) => (error instanceof Error ? error.message : 'something went wrong in the page');

export function useOrders(csv: Ref<string>) {
  const columns = ref(nothingNamed());
  const lengthsIn = ref<NonNullable<HeadView['lengths_in']> | ''>('');
  const dates = ref<NonNullable<HeadView['dates']> | ''>('');
  const shop = ref('');
  /** Whether a table with this head was read so before. */
  const kept = ref(false);
  /** Whether the server has said how this table is read. */
  const guessed = ref(false);
  const like = ref('');
  const table = computed(() => tableOf(csv.value));
  /** As they are by now: cells can be mended. */
  const rows = shallowRef<Row[]>([]);
  const seen = shallowRef<OrderView[]>([]);
  /** The rows as they are shown: what is to be put right first. */
  const shown = shallowRef<number[]>([]);
  const sent = ref(0);
  const busy = ref<'looking' | 'making'>();
  const trouble = ref('');
  /** Counts the looks, so that the answer to an older one is dropped. */
  let turn = 0;
  /** What the server said last, which needs no second look. */
  let known = '';

  /** Only columns that the table has. */
  const has = (column: Column) => {
    const name = columns.value[column];
    return table.value.head.includes(name) ? name : null;
  };
  const named = computed(
    () => Object.fromEntries(ALL_COLUMNS.map((column) => [column, has(column)])) as OrderColumns,
  );
  const ready = computed(
    () => rows.value.length > 0 && Boolean(named.value.number) && Boolean(named.value.name),
  );
  /** How the table is read, as it is sent. */
  const reading = computed(() => ({
    columns: named.value,
    lengths_in: lengthsIn.value || null,
    dates: dates.value || null,
    shop: shop.value.trim(),
    like: like.value || null,
  }));
  const isFresh = ({ known: before, shipment, refused: why }: OrderView) =>
    !before && !shipment && why.length === 0;
  const fresh = computed(() => seen.value.filter(isFresh));
  const made = computed(() => seen.value.filter((one) => !one.known && one.shipment));
  const refused = computed(() => seen.value.filter((one) => one.refused.length > 0));

  watch(
    csv,
    async () => {
      const mine = (turn += 1);
      rows.value = table.value.rows;
      seen.value = [];
      shown.value = [];
      guessed.value = false;
      if (rows.value.length === 0) return;
      try {
        const body = { head: table.value.head, rows: rows.value.slice(0, SAMPLE) };
        const guess = await answer(api.POST('/api/v1/orders/head', { body }));
        if (mine !== turn) return;
        for (const column of ALL_COLUMNS) columns.value[column] = guess.columns?.[column] ?? '';
        lengthsIn.value = guess.lengths_in ?? '';
        dates.value = guess.dates ?? '';
        shop.value = guess.shop || shop.value;
        kept.value = guess.kept;
        guessed.value = true;
        known = JSON.stringify(reading.value);
        if (ready.value) await send(false);
      } catch (error) {
        if (mine !== turn) return;
        trouble.value = `The columns weren’t recognised: ${why(error)}.`;
        guessed.value = true;
      }
    },
    { immediate: true },
  );
  watchDebounced(
    reading,
    (now) => {
      if (JSON.stringify(now) === known) return;
      known = JSON.stringify(now);
      seen.value = [];
      if (ready.value) void send(false);
    },
    { debounce: SETTLED_MS, deep: true },
  );

  const ask = (part: Row[], make: boolean) =>
    answer(api.POST('/api/v1/orders', { body: { ...reading.value, rows: part, make } }));

  /** Sends all rows, some at a time; what is answered stays, whatever becomes of the rest. */
  async function send(make: boolean): Promise<void> {
    const mine = (turn += 1);
    busy.value = make ? 'making' : 'looking';
    trouble.value = '';
    sent.value = 0;
    const views = make ? [...seen.value] : [];
    try {
      for (const part of parted(rows.value, named.value.number ?? null)) {
        const came = await ask(part, make);
        if (mine !== turn) return;
        came.forEach((view, place) => {
          // What was made just now was not known before.
          const at = sent.value + place;
          const before = views[at];
          views[at] = make && before && !before.known ? { ...view, known: false } : view;
        });
        sent.value += part.length;
        seen.value = [...views];
      }
      if (!make) {
        const all = seen.value.map((_, at) => at);
        const isWrong = (at: number) => (seen.value[at]?.refused.length ?? 0) > 0;
        shown.value = [...all.filter(isWrong), ...all.filter((at) => !isWrong(at))];
      }
    } catch (error) {
      if (mine !== turn) return;
      trouble.value = `It stopped at row ${String(sent.value + 1)}: ${why(error)}. Parcels made so far are kept. Start again: no order is imported twice.`;
    } finally {
      if (mine === turn) busy.value = undefined;
    }
  }

  /** The text of a cell, by what its column holds. */
  const cellOf = (at: number, field: string) => rows.value[at]?.[named.value[field as Column] ?? ''] ?? '';
  /** Whether the table has a column for it, so that a row can be mended here. */
  const canMend = (field: string) => Boolean(named.value[field as Column]);

  /** Writes a cell anew, and looks over its row once more. */
  async function mend(at: number, field: string, text: string): Promise<void> {
    const name = named.value[field as Column];
    const row = rows.value[at];
    if (!name || !row || row[name] === text) return;
    const mended = { ...row, [name]: text };
    rows.value = rows.value.map((one, place) => (place === at ? mended : one));
    try {
      const [view] = await ask([mended], false);
      if (view && rows.value[at] === mended)
        seen.value = seen.value.map((one, place) => (place === at ? view : one));
    } catch (error) {
      trouble.value = `The row was not looked over: ${why(error)}.`;
    }
  }

  return {
    columns,
    lengthsIn,
    dates,
    shop,
    kept,
    guessed,
    like,
    table,
    rows,
    named,
    ready,
    seen,
    shown,
    fresh,
    made,
    refused,
    sent,
    busy,
    trouble,
    send,
    cellOf,
    canMend,
    mend,
  };
}
