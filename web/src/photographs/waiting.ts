// The photographs that wait in this browser, and their way to the server.
import { createStore, del, set, values } from 'idb-keyval';
import { shallowRef } from 'vue';

import { api, done, Refused, Unreachable } from '@/api/client';
import { studioShown } from '@/kept/studio';

import { inOrder, sendAll } from './queue';
import type { Keeping, Sent, Waiting } from './queue';

// Not where what was read is kept: a device that is signed out forgets that, and sends these once it is let in again.
const store = createStore('hummock-photographs', 'waiting');
const keeping: Keeping = {
  all: async () => {
    const all = await values<Waiting>(store);
    return all.filter(({ studio }) => (studio ?? studioShown()) === studioShown());
  },
  put: (photograph) => set(photograph.id, { studio: studioShown(), ...photograph }, store),
  drop: (id) => del(id, store),
};

const AGAIN_MS = 4000;
/** What waits, as it was last seen, in the order in which it was taken. */
export const waiting = shallowRef<Waiting[]>([]);
/** Counts up with each one that arrived. */
export const arrived = shallowRef(0);

async function see(): Promise<void> {
  waiting.value = inOrder(await keeping.all().catch(() => []));
}

async function send({ id, shipment, step, taken_at, file }: Waiting): Promise<Sent> {
  try {
    const path = { id: shipment, photograph: id };
    await done(
      api.PUT('/api/v1/shipments/{id}/photographs/{photograph}', {
        params: { path, query: { step, taken_at } },
        // The picture as it is, and not as JSON.
        body: file as unknown as never,
        bodySerializer: (body: unknown) => body as Blob,
        headers: { 'Content-Type': file.type || 'application/octet-stream' },
      }),
    );
    arrived.value += 1;
    return { is: 'kept' };
  } catch (error) {
    if (error instanceof Refused) {
      const why = error.fields['file'] ?? error.message;
      return { is: 'refused', why };
    }
    if (error instanceof Unreachable) return { is: 'away' };
    throw error;
  }
}

let timer: number | undefined;
/** Sends what waits, one window at a time, and again later while the server is away. */
export async function sendWaiting(): Promise<void> {
  window.clearTimeout(timer);
  const isAway = await alone(() => sendAll(keeping, send, () => void see())).catch(() => true);
  await see();
  if (isAway) timer = window.setTimeout(() => void sendWaiting(), AGAIN_MS);
}

/** Windows of one browser send one after the other; where it knows no locks each sends, and the server keeps one. */
async function alone(work: () => Promise<boolean>): Promise<boolean> {
  // Over plain HTTP from another machine there are none, whatever the types say.
  const locks = navigator.locks as LockManager | undefined;
  return locks ? locks.request('hummock.photographs', work) : work();
}

/** Keeps a photograph until it has arrived, and sends it. */
export async function take(photograph: Waiting): Promise<void> {
  await keeping.put(photograph);
  await see();
  void sendWaiting();
}

/** Throws one away that was not taken. */
export async function discard(id: string): Promise<void> {
  await keeping.drop(id);
  await see();
}
