// Who sends, as it is typed and as it is kept.
import { computed, reactive, ref, watch } from 'vue';

import { answer, api, done } from '@/api/client';
import { read, useRead } from '@/api/queries';
import type { Sender } from '@/api/types';
import { noAddress } from '@/countries/address';

import { useKeeping } from './keeping';

export function useSender() {
  const {
    data: kept,
    away,
    reload,
  } = useRead<Sender>({
    queryKey: ['sender'],
    queryFn: ({ signal }) => answer(api.GET('/api/v1/studio/sender', { signal })),
    // Nobody's typing is read over.
    refetchOnWindowFocus: false,
  });
  const typed = reactive({
    name: '',
    town: '',
    address: noAddress(),
    telephone: '',
    email: '',
    width: null as number | null,
    height: null as number | null,
    countries: [] as Sender['countries'],
  });
  const written = () => JSON.stringify(typed);
  const before = ref('');

  function show(sender: Sender): void {
    Object.assign(typed, {
      name: sender.name,
      town: sender.town,
      address: { ...noAddress(), ...sender.sender.address },
      telephone: sender.sender.telephone ?? '',
      email: sender.sender.email ?? '',
      width: sender.certificate.width_mm,
      height: sender.certificate.height_mm,
      countries: sender.countries.map((country) => ({ ...country })),
    });
    before.value = written();
  }
  watch(
    kept,
    (sender) => {
      if (sender && (before.value === '' || !changed.value)) show(sender);
    },
    { immediate: true },
  );
  const changed = computed(() => before.value !== '' && written() !== before.value);

  const { errors, trouble, busy, keeping } = useKeeping(changed, reload);

  async function keep(): Promise<void> {
    const version = kept.value?.version;
    if (version === undefined) return;
    const { name, town, address, telephone, email, width, height, countries } = typed;
    const body = {
      version,
      name,
      town,
      sender: { address: { ...address }, telephone, email },
      certificate: { width_mm: width ?? 0, height_mm: height ?? 0 },
      countries: countries.map((country) => ({ ...country })),
    };
    await keeping(async () => {
      const sender = await answer(api.PUT('/api/v1/studio/sender', { body }));
      show(sender);
      read.setQueryData(['sender'], sender);
      for (const queryKey of [['studio'], ['countries'], ['settings']]) {
        await read.invalidateQueries({ queryKey });
      }
    });
  }

  async function keepMark(file: File): Promise<void> {
    trouble.value = '';
    const sent = fetch('/api/v1/studio/mark', { method: 'PUT', body: file });
    try {
      const response = await sent;
      if (!response.ok) {
        const problem = (await response.json().catch(() => ({}))) as { detail?: string };
        throw new Error(problem.detail ?? 'it was not taken');
      }
      await reload();
    } catch (error) {
      trouble.value = error instanceof Error ? error.message : 'something went wrong in the page';
    }
  }

  async function dropMark(): Promise<void> {
    trouble.value = '';
    try {
      await done(api.DELETE('/api/v1/studio/mark'));
      await reload();
    } catch (error) {
      trouble.value = error instanceof Error ? error.message : 'something went wrong in the page';
    }
  }

  return { kept, typed, changed, errors, trouble, busy, away, keep, keepMark, dropMark };
}
