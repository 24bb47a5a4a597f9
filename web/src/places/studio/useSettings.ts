// A studio's settings, as they are typed and as they are kept.
import { computed, reactive, ref, watch } from 'vue';

import { answer, api } from '@/api/client';
import { read, useRead } from '@/api/queries';
import type { components } from '@/api/schema';
import type { Settings } from '@/api/types';
import { noAddress } from '@/countries/address';
import { withPoint } from '@/units/typed';

import { useKeeping } from './keeping';
import type { Section } from './words';

const nothing = () => ({
  name: '',
  sender: noAddress(),
  time_zone: '',
  currency: '',
  /** What one of the money before is worth in it, where it changes. */
  rate: '',
  length: 'mm' as Settings['length'],
  fraction: '16',
  mass: 'kg' as Settings['mass'],
  decimal: 'point' as Settings['decimal'],
  date_order: 'dmy' as Settings['date_order'],
  paper: 'a4' as Settings['paper'],
  label: '100x150' as Settings['label'],
  tax: { vat: '', eori: '', ioss: '', other: '', prices: 'net' as 'net' | 'gross' },
  countries: [] as Settings['countries'],
});

/** Under which part of the studio a setting stands, where that is not the ruler. */
const PART_OF: Partial<Record<string, Section>> = {
  name: 'name',
  sender: 'name',
  countries: 'countries',
  currency: 'money',
  rate: 'money',
  tax: 'money',
};

export type GoesIn = components['schemas']['EnclosureKind'];

/** The settings of the studio that is shown; or, where one is to begin, those that every studio begins with. */
export function useSettings(begins: boolean) {
  const { data: kept, reload } = useRead<Settings>({
    queryKey: begins ? ['settings', 'new'] : ['settings'],
    queryFn: ({ signal }) =>
      begins
        ? answer(api.GET('/api/v1/studios/new', { signal }))
        : answer(api.GET('/api/v1/studio/settings', { signal })),
    // Nobody's typing is read over.
    refetchOnWindowFocus: false,
  });
  const typed = reactive(nothing());
  /** What goes into every parcel: asked when a studio is set up, and not again here. */
  const goesIn = ref<GoesIn[]>([]);
  const before = ref('');
  const written = () => JSON.stringify(typed);
  const changed = computed(() => before.value !== '' && written() !== before.value);

  function show(settings: Settings): void {
    const { sender, fraction, tax, countries } = settings;
    const { name, time_zone, currency, length, mass, decimal, date_order, paper, label } = settings;
    Object.assign(typed, {
      name,
      time_zone,
      currency,
      rate: '',
      length,
      mass,
      decimal,
      date_order,
      paper,
      label,
    });
    Object.assign(typed, {
      sender: { ...noAddress(), ...sender },
      fraction: String(fraction),
      tax: { ...nothing().tax, ...tax },
      countries: countries.map((country) => ({
        ...country,
        wet_months: [...(country.wet_months ?? [])],
        hot_months: [...(country.hot_months ?? [])],
      })),
    });
    before.value = written();
  }
  watch(
    kept,
    (settings) => {
      if (settings && (before.value === '' || !changed.value)) show(settings);
    },
    { immediate: true },
  );

  /** The parts of the studio under which something is changed. */
  const changedUnder = computed<Section[]>(() => {
    if (!changed.value) return [];
    const stood = JSON.parse(before.value) as Record<string, unknown>;
    const under = new Set<Section>();
    for (const [key, value] of Object.entries(typed))
      if (JSON.stringify(value) !== JSON.stringify(stood[key])) under.add(PART_OF[key] ?? 'ruler');
    return [...under];
  });
  const { errors, trouble, busy, keeping } = useKeeping(changed, reload);

  /** Keeps what is typed; tells whether it was taken. */
  async function keep(): Promise<boolean> {
    const version = kept.value?.version;
    if (version === undefined) return false;
    return keeping(async () => {
      const rate = withPoint(typed.rate).trim() || undefined;
      const asked = { ...typed, rate, fraction: Number(typed.fraction) };
      if (begins) {
        await answer(api.POST('/api/v1/studios/set-up', { body: { ...asked, goes_in: goesIn.value } }));
        before.value = written();
        return;
      }
      const goes_in = goesIn.value.length > 0 ? { goes_in: goesIn.value } : {};
      const body = { ...asked, ...goes_in, version };
      const settings = await answer(api.PUT('/api/v1/studio/settings', { body }));
      show(settings);
      read.setQueryData(['settings'], settings);
      for (const queryKey of [['studio'], ['countries'], ['sender']]) {
        await read.invalidateQueries({ queryKey });
      }
    });
  }

  return { kept, typed, goesIn, changed, changedUnder, errors, trouble, busy, keep };
}
