// One price list while it is changed: what is typed, as fields, as text or as a table, and what came of it.
import { watchDebounced } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';

import { answer, api, Refused } from '@/api/client';
import type { ShapedSheet, Tariff, TariffKept, TariffSheet } from '@/api/types';
import { ask } from '@/asking/ask';
import { mayLose, useLeaveGuard } from '@/asking/useLeaveGuard';

import { useRates } from './useRates';
import type { Basis } from './useRates';
import { structuredCopy as copy } from './zones';

const LOOKED_OVER_AFTER_MS = 400;
const LOST = 'what was changed in these rates';

export type OpenTariff = ReturnType<typeof useTariff>;

export function useTariff(id: () => string | undefined) {
  const rates = useRates();
  const router = useRouter();
  const listed = computed(() => rates.tariffs.value ?? []);
  const kept = computed(() => listed.value.find(({ tariff }) => tariff.id === id()) ?? listed.value[0]);
  const basis = ref<Basis>();
  /** The whole as text, while it is looked at as that. */
  const text = ref<string>();
  const csv = ref<string>();
  const unread = ref('');
  const told = ref<TariffKept>();
  /** Whether the shape of a new price list is chosen. */
  const choosing = ref(false);

  function take(): void {
    choosing.value = false;
    const now = kept.value;
    basis.value = now && { version: now.version, id: now.tariff.id, sheet: copy(now.sheet) };
    text.value = undefined;
    csv.value = undefined;
    told.value = undefined;
    rates.forget();
  }
  const changed = computed(() => {
    if (!basis.value) return false;
    if (basis.value.version === undefined) return true;
    const was = listed.value.find(({ tariff }) => tariff.id === basis.value?.id);
    return JSON.stringify(was?.sheet) !== JSON.stringify(basis.value.sheet);
  });
  // What somebody changes is not taken from under their hands by a fresh look at the rates.
  watch([() => kept.value?.tariff.id, () => kept.value?.version], ([which, version]) => {
    // What was just kept is open already, with what it changed beside it.
    if (basis.value?.id === which && basis.value?.version === version) return;
    if (!changed.value || basis.value?.version !== undefined) take();
  });
  watch(kept, (now) => {
    if (now && !basis.value) take();
  });
  if (kept.value) take();
  // Another list is opened by `open`, which asks itself.
  useLeaveGuard(() => (changed.value ? LOST : undefined), true);

  async function open(which: string): Promise<void> {
    if (changed.value && !(await mayLose(LOST))) return;
    choosing.value = false;
    basis.value = undefined;
    void router.push({ name: 'carriers', params: { id: which } });
    if (which === kept.value?.tariff.id) take();
  }
  function begin(sheet: TariffSheet, example?: TariffSheet): void {
    choosing.value = false;
    basis.value = { sheet: copy(sheet), example };
    text.value = undefined;
    csv.value = undefined;
    told.value = undefined;
    rates.forget();
  }
  function double(): void {
    if (!basis.value) return;
    const sheet = copy(basis.value.sheet);
    begin({ ...sheet, id: '', carrier: `${sheet.carrier} 2` });
  }
  /** Asks in which shape the price list of another carrier begins. */
  async function fresh(): Promise<void> {
    if (changed.value && !(await mayLose(LOST))) return;
    if (changed.value) take();
    choosing.value = true;
  }
  function beginIn({ sheet, example }: ShapedSheet): void {
    begin(sheet, example);
  }
  /** Shows it as text, or goes back to its form. */
  async function asText(): Promise<void> {
    unread.value = '';
    if (text.value !== undefined) {
      text.value = undefined;
      return;
    }
    if (!basis.value) return;
    try {
      const body = { sheet: basis.value.sheet };
      const { tariff } = await answer(api.POST('/api/v1/tariffs/sheet', { body }));
      text.value = JSON.stringify(tariff, null, 2);
    } catch {
      // What does not hold together yet is told at its fields.
      told.value = await rates.put(basis.value, true);
    }
  }
  /** Takes the text over; one that can't be read stays as it is, with a word about it. */
  async function readText(): Promise<boolean> {
    if (text.value === undefined || !basis.value) return true;
    unread.value = '';
    try {
      const body = { tariff: JSON.parse(text.value) as Tariff };
      const { sheet } = await answer(api.POST('/api/v1/tariffs/sheet', { body }));
      basis.value = { ...basis.value, sheet };
      return true;
    } catch (error) {
      const says = error instanceof Error ? error.message : '';
      unread.value =
        error instanceof Refused
          ? Object.entries(error.fields)
              .map(([field, why]) => `${field}: ${why}`)
              .join('; ')
          : `This can’t be read as JSON: ${says}`;
      return false;
    }
  }
  async function put(dry: boolean): Promise<void> {
    if (!(await readText()) || !basis.value) return;
    told.value = await rates.put(basis.value, dry);
    if (!told.value || dry) return;
    const { version, tariff, sheet } = told.value;
    basis.value = { version, id: tariff.id, sheet: copy(sheet) };
    text.value = undefined;
    const { query } = router.currentRoute.value;
    await router.push({ name: 'carriers', params: { id: tariff.id }, query });
  }
  // What would change, and what is wrong, is told while it is typed; of a new one once it has a name and a price.
  const begun = computed(() => {
    const sheet = basis.value?.sheet;
    const priced = sheet?.services.some(({ prices, formats }) =>
      [prices, ...formats.map((format) => format.prices)].some(({ zones }) =>
        zones.some((zone) => zone.prices.some((price) => price.trim() !== '')),
      ),
    );
    return basis.value?.version !== undefined || (Boolean(sheet?.carrier.trim()) && priced === true);
  });
  watchDebounced(
    () => JSON.stringify(basis.value?.sheet),
    async () => {
      if (!changed.value || !begun.value || text.value !== undefined || !basis.value) return;
      const asked = basis.value;
      const looked = await rates.put(asked, true);
      if (basis.value === asked) told.value = looked;
    },
    { debounce: LOOKED_OVER_AFTER_MS },
  );
  async function takeTable(dry: boolean): Promise<void> {
    if (csv.value === undefined || basis.value?.version === undefined) return;
    told.value = await rates.table(basis.value.id ?? '', basis.value.version, csv.value, dry);
    if (!told.value || dry) return;
    basis.value = { version: told.value.version, id: told.value.tariff.id, sheet: copy(told.value.sheet) };
    csv.value = undefined;
  }
  async function drop(): Promise<void> {
    const now = basis.value;
    if (now?.version === undefined) return take();
    const goOn = await ask({
      title: 'Delete this price list?',
      says: `The price list of ${now.sheet.carrier} goes for good; what was sent by it keeps its prices.`,
      stay: 'Keep it',
      goOn: 'Delete it',
    });
    if (goOn && (await rates.drop(now.id ?? '', now.version))) {
      basis.value = undefined;
      await router.push({ name: 'carriers' });
    }
  }
  return {
    rates,
    listed,
    basis,
    text,
    csv,
    unread,
    told,
    choosing,
    changed,
    open,
    double,
    fresh,
    beginIn,
    asText,
    put,
    takeTable,
    drop,
  };
}
