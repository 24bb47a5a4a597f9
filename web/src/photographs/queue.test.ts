import { describe, expect, it } from 'vitest';

import { inOrder, sendAll } from './queue';
import type { Keeping, Sent, Waiting } from './queue';

/** Numbers from a seed, the same every time. */
function random(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1_664_525 + 1_013_904_223) % 4_294_967_296;
    return state / 4_294_967_296;
  };
}

function photograph(at: number): Waiting {
  return {
    id: `id-${String(at)}`,
    shipment: 's',
    step: 'look/photographs',
    taken_at: new Date(Date.UTC(2027, 2, 4, 10, 0, at)).toISOString(),
    file: new Blob([String(at)]),
  };
}

function keptIn(all: Map<string, Waiting>): Keeping {
  return {
    all: () => Promise.resolve([...all.values()]),
    put: (one) => Promise.resolve(void all.set(one.id, one)),
    drop: (id) => Promise.resolve(void all.delete(id)),
  };
}

describe('photographs that wait', () => {
  it('arrive once each and in order, whatever is lost, doubled or put in late', async () => {
    for (let seed = 1; seed <= 300; seed += 1) {
      const next = random(seed);
      const count = 1 + Math.floor(next() * 8);
      const all = new Map<string, Waiting>();
      // They were put away in any order.
      const taken = Array.from({ length: count }, (_, at) => photograph(at)).toSorted(() => next() - 0.5);
      for (const one of taken) all.set(one.id, one);
      /** As the server writes them down: by their id, and nothing twice. */
      const record: string[] = [];
      const arrive = (one: Waiting) => {
        if (!record.includes(one.id)) record.push(one.id);
      };
      let lossesLeft = 20;
      const send = (one: Waiting): Promise<Sent> => {
        const luck = lossesLeft > 0 ? next() : 1;
        if (luck < 0.25) {
          lossesLeft -= 1;
          return Promise.resolve({ is: 'away' });
        }
        arrive(one);
        if (luck < 0.5) {
          // It arrived, and the answer did not.
          lossesLeft -= 1;
          return Promise.resolve({ is: 'away' });
        }
        if (luck < 0.7) arrive(one);
        return Promise.resolve({ is: 'kept' });
      };
      for (let round = 0; round < 60 && all.size > 0; round += 1) await sendAll(keptIn(all), send, () => 0);
      expect([seed, all.size, record]).toEqual([seed, 0, inOrder(taken).map(({ id }) => id)]);
    }
  });

  it('go on behind one that is refused, which stays with its reason', async () => {
    const all = new Map([0, 1, 2].map((at) => [`id-${String(at)}`, photograph(at)]));
    const sent: string[] = [];
    const send = ({ id }: Waiting): Promise<Sent> => {
      sent.push(id);
      return Promise.resolve(id === 'id-1' ? { is: 'refused', why: 'it breaks off' } : { is: 'kept' });
    };
    expect(await sendAll(keptIn(all), send, () => 0)).toBe(false);
    expect(sent).toEqual(['id-0', 'id-1', 'id-2']);
    expect([...all.values()].map(({ id, refused }) => [id, refused])).toEqual([['id-1', 'it breaks off']]);
    // It is not sent again by itself.
    await sendAll(keptIn(all), send, () => 0);
    expect(sent).toHaveLength(3);
  });

  it('stop at the first that the server is away for', async () => {
    const all = new Map([0, 1].map((at) => [`id-${String(at)}`, photograph(at)]));
    const sent: string[] = [];
    const send = ({ id }: Waiting): Promise<Sent> => {
      sent.push(id);
      return Promise.resolve({ is: 'away' });
    };
    expect(await sendAll(keptIn(all), send, () => 0)).toBe(true);
    expect([sent, all.size]).toEqual([['id-0'], 2]);
  });
});
