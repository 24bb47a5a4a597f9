// Orders out of a shop's table: which column holds what, what came of each row, and how far it is.
import Papa from 'papaparse';
import { computed, ref, shallowRef, watch } from 'vue';
import type { Ref } from 'vue';

import { answer, api } from '@/api/client';
import type { OrderColumns, OrderView } from '@/api/types';

/** So many rows are sent at a time, so that it can be seen how far it is. */
const AT_A_TIME = 50;

export type Column = keyof OrderColumns;
type Row = Record<string, string>;

const NOTHING_NAMED: Record<Column, string> = {
  number: '',
  name: '',
  street: '',
  town: '',
  postcode: '',
  country: '',
  title: '',
  value: '',
  promised: '',
};

/** Reads a table by its head; rows with nothing in them are none. */
export function tableOf(csv: string): { head: string[]; rows: Row[] } {
  const { data, meta } = Papa.parse<Row>(csv.trim(), { header: true, skipEmptyLines: 'greedy' });
  const whole = (row: Row) =>
    Object.fromEntries(Object.entries(row).filter(([name, text]) => name && typeof text === 'string'));
  return { head: (meta.fields ?? []).filter(Boolean), rows: data.map(whole) };
}

export function useOrders(csv: Ref<string>) {
  /** What was named once is kept for the next table, in whatever browser. */
  const columns = ref({ ...NOTHING_NAMED });
  let isTouched = false;
  void answer(api.GET('/api/v1/orders/columns'))
    .then((kept) => {
      if (isTouched) return;
      for (const column of Object.keys(NOTHING_NAMED) as Column[]) columns.value[column] = kept[column] ?? '';
    })
    // Without them they are named once more.
    .catch(() => undefined);
  watch(
    columns,
    () => {
      isTouched = true;
    },
    { deep: true },
  );
  const like = ref('');
  const table = computed(() => tableOf(csv.value));
  const seen = shallowRef<OrderView[]>([]);
  const sent = ref(0);
  const busy = ref<'looking' | 'making'>();
  const trouble = ref('');

  watch([csv, columns, like], () => (seen.value = []), { deep: true });

  /** Only columns that the table has. */
  const has = (column: Column) => {
    const name = columns.value[column];
    return table.value.head.includes(name) ? name : null;
  };
  const named = computed((): OrderColumns => ({
    number: has('number'),
    name: has('name'),
    street: has('street'),
    town: has('town'),
    postcode: has('postcode'),
    country: has('country'),
    title: has('title'),
    value: has('value'),
    promised: has('promised'),
  }));
  const fresh = computed(() =>
    seen.value.filter(({ known, shipment, refused }) => !known && !shipment && refused.length === 0),
  );
  const made = computed(() => seen.value.filter(({ known, shipment }) => !known && shipment));
  const refused = computed(() => seen.value.filter((one) => one.refused.length > 0));

  /** Sends all rows, some at a time; what is answered stays, whatever becomes of the rest. */
  async function send(make: boolean): Promise<void> {
    busy.value = make ? 'making' : 'looking';
    trouble.value = '';
    sent.value = 0;
    const { rows } = table.value;
    const views = make ? [...seen.value] : [];
    try {
      for (let at = 0; at < rows.length; at += AT_A_TIME) {
        const part = rows.slice(at, at + AT_A_TIME);
        const body = { columns: named.value, rows: part, like: like.value || null, make };
        const came = await answer(api.POST('/api/v1/orders', { body }));
        came.forEach((view, place) => {
          // What was made just now was not known before.
          const before = views[at + place];
          views[at + place] = make && before && !before.known ? { ...view, known: false } : view;
        });
        seen.value = [...views];
        sent.value = at + part.length;
      }
    } catch (error) {
      const why = error instanceof Error ? error.message : 'something went wrong in the page';
      trouble.value = `It stopped at row ${String(sent.value + 1)}: ${why}. What was made stays; begin again, and none is made twice.`;
    } finally {
      busy.value = undefined;
    }
  }

  return { columns, like, table, named, seen, fresh, made, refused, sent, busy, trouble, send };
}
