import { createGlobalState } from '@vueuse/core';
import { computed } from 'vue';

import { answer, api } from '@/api/client';
import { read, useRead } from '@/api/queries';
import type { Country } from '@/api/types';
import { useRemembered } from '@/kept/remembered';

/** All countries, those that the studio sends to first; asked for once a page. */
export const useCountries = createGlobalState(() => {
  const { data: now } = useRead({
    queryKey: ['countries'],
    queryFn: ({ signal }) => answer(api.GET('/api/v1/countries', { signal })),
    refetchOnWindowFocus: false,
  });
  const data = useRemembered('countries', now);
  const all = computed<readonly Country[]>(() => data.value ?? []);
  const listed = computed(() => all.value.filter((country) => country.listed));
  const rest = computed(() => all.value.filter((country) => !country.listed));
  const of = (code: string) => all.value.find((country) => country.code === code);
  const nameOf = (code: string) => of(code)?.name ?? code;
  return { all, listed, rest, of, nameOf };
});

/** Adds a country to those that the studio sends to. */
export async function sendTo(code: string): Promise<void> {
  const settings = await answer(api.GET('/api/v1/studio/settings'));
  if (settings.countries.some((country) => country.code === code)) return;
  const { version, countries } = settings;
  const body = { version, countries: [...countries, { code }] };
  const kept = await answer(api.PUT('/api/v1/studio/settings', { body }));
  read.setQueryData(['settings'], kept);
  await read.invalidateQueries({ queryKey: ['countries'] });
  await read.invalidateQueries({ queryKey: ['studio'] });
}
