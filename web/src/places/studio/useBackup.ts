// The whole studio out as one file, and in again: how far it is, and sending the file part by part.
import { ref } from 'vue';

import { answer, api, Refused, Unreachable } from '@/api/client';
import { useRead } from '@/api/queries';
import type { Backup } from '@/api/types';

const LOOK_AGAIN_MS = 400;
const TRY_AGAIN_MS = 2500;
/** A part is no larger; the server takes as much at once. */
const PART = 4 << 20;

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Asks again for as long as nobody answers. */
async function heard<Data>(ask: () => Promise<Data>): Promise<Data> {
  for (;;) {
    try {
      return await ask();
    } catch (error) {
      if (!(error instanceof Unreachable)) throw error;
      await pause(TRY_AGAIN_MS);
    }
  }
}

export function useBackup() {
  const {
    data: backup,
    away,
    reload,
  } = useRead<Backup>({
    queryKey: ['backup'],
    queryFn: ({ signal }) => answer(api.GET('/api/v1/studio/backup', { signal })),
    refetchInterval: (query) => (query.state.data?.doing ? LOOK_AGAIN_MS : false),
  });
  const trouble = ref('');
  const sending = ref(false);

  async function tell(work: () => Promise<unknown>): Promise<void> {
    trouble.value = '';
    try {
      await work();
    } catch (error) {
      trouble.value =
        error instanceof Refused || error instanceof Unreachable
          ? error.message
          : 'the file can’t be read any more: choose it again';
    }
    await reload();
  }

  const make = () => tell(() => answer(api.POST('/api/v1/studio/backup')));

  /** Sends a file on from wherever the server says that it has come to. */
  async function send(file: File): Promise<void> {
    const announced = await answer(api.POST('/api/v1/studio/restore', { body: { bytes: file.size } }));
    let from = announced.received;
    while (from < file.size) {
      const part = await file.slice(from, from + PART).arrayBuffer();
      const sent = await heard(() =>
        answer(
          api.PUT('/api/v1/studio/restore/{id}', {
            params: { path: { id: announced.id }, query: { from } },
            body: part as unknown as never,
            bodySerializer: () => part,
            headers: { 'content-type': 'application/octet-stream' },
          }),
        ),
      );
      from = sent.received;
      await reload();
    }
  }

  async function bringIn(file: File): Promise<void> {
    sending.value = true;
    await tell(() => send(file));
    sending.value = false;
  }

  /** Says the word that a backup which is here waits for. */
  const goOn = (word: { passphrase?: string; without_broken?: boolean }) => {
    const id = backup.value?.waiting?.id ?? '';
    return tell(() =>
      answer(api.POST('/api/v1/studio/restore/{id}', { params: { path: { id } }, body: word })),
    );
  };
  const giveUp = () => {
    const id = backup.value?.waiting?.id ?? '';
    return tell(() => answer(api.DELETE('/api/v1/studio/restore/{id}', { params: { path: { id } } })));
  };

  return { backup, away, trouble, sending, make, bringIn, goOn, giveUp };
}
