// One price list while it is changed: what is typed, as fields, as text or as a table, and what came of it.
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';

import type { Tariff, TariffKept } from '@/api/types';
import { ask } from '@/asking/ask';
import { mayLose, useLeaveGuard } from '@/asking/useLeaveGuard';

import { useRates } from './useRates';
import type { Basis } from './useRates';

const copy = (tariff: Tariff): Tariff => JSON.parse(JSON.stringify(tariff)) as Tariff;
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

  function take(): void {
    const now = kept.value;
    basis.value = now && { version: now.version, tariff: copy(now.tariff) };
    text.value = undefined;
    csv.value = undefined;
    told.value = undefined;
    rates.forget();
  }
  const changed = computed(() => {
    if (!basis.value) return false;
    if (basis.value.version === undefined) return true;
    const was = listed.value.find(({ tariff }) => tariff.id === basis.value?.tariff.id);
    return JSON.stringify(was?.tariff) !== JSON.stringify(basis.value.tariff);
  });
  // What somebody changes is not taken from under their hands by a fresh look at the rates.
  watch([() => kept.value?.tariff.id, () => kept.value?.version], () => {
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
    basis.value = undefined;
    void router.push({ name: 'carriers', params: { id: which } });
    if (which === kept.value?.tariff.id) take();
  }
  function double(): void {
    if (!basis.value) return;
    const tariff = copy(basis.value.tariff);
    const taken = new Set(listed.value.map((one) => one.tariff.id));
    let number = 2;
    while (taken.has(`${tariff.id}-${String(number)}`)) number += 1;
    basis.value = {
      tariff: {
        ...tariff,
        id: `${tariff.id}-${String(number)}`,
        carrier: `${tariff.carrier} ${String(number)}`,
      },
    };
    told.value = undefined;
  }
  function asText(): void {
    text.value = text.value === undefined ? JSON.stringify(basis.value?.tariff, null, 2) : undefined;
    unread.value = '';
  }
  /** Takes the text over; one that can't be read stays as it is, with a word about it. */
  function readText(): boolean {
    if (text.value === undefined || !basis.value) return true;
    try {
      basis.value = { ...basis.value, tariff: JSON.parse(text.value) as Tariff };
      unread.value = '';
      return true;
    } catch (error) {
      unread.value = `This can’t be read as JSON: ${error instanceof Error ? error.message : ''}`;
      return false;
    }
  }
  async function put(dry: boolean): Promise<void> {
    if (!readText() || !basis.value) return;
    const asked = basis.value;
    told.value = await rates.put(asked, dry);
    if (!told.value || dry) return;
    basis.value = { version: told.value.version, tariff: copy(told.value.tariff) };
    text.value = undefined;
    await router.push({ name: 'carriers', params: { id: asked.tariff.id } });
  }
  async function takeTable(dry: boolean): Promise<void> {
    if (csv.value === undefined || basis.value?.version === undefined) return;
    told.value = await rates.table(basis.value.tariff.id, basis.value.version, csv.value, dry);
    if (!told.value || dry) return;
    basis.value = { version: told.value.version, tariff: copy(told.value.tariff) };
    csv.value = undefined;
  }
  async function drop(): Promise<void> {
    const now = basis.value;
    if (now?.version === undefined) return take();
    const goOn = await ask({
      title: 'Delete this price list?',
      says: `The price list of ${now.tariff.carrier} goes for good; what was sent by it keeps its prices.`,
      stay: 'Keep it',
      goOn: 'Delete it',
    });
    if (goOn && (await rates.drop(now.tariff.id, now.version))) {
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
    changed,
    open,
    double,
    asText,
    put,
    takeTable,
    drop,
  };
}
