// Asks the server about one shipment, and says in one word what came of it.
import { answer, api, Refused, Unreachable } from '@/api/client';
import type { Inputs, LengthUnit, Shipment } from '@/api/types';

import type { Reply, Transport } from './driver';
import type { Part } from './looked';
import { patched } from './draft';

async function reply(asked: Promise<Shipment>): Promise<Reply> {
  try {
    return { is: 'shipment', shipment: await asked };
  } catch (error) {
    return failure(error);
  }
}

function failure(error: unknown): Reply {
  if (!(error instanceof Refused)) {
    const why = error instanceof Unreachable ? error.message : 'something went wrong in the page';
    return { is: 'lost', why };
  }
  const { status, type, current } = error.problem;
  if (status === 409 && current) return { is: 'stale', current };
  if (type === '/problems/put-away') return { is: 'put_away' };
  if (status === 404) return { is: 'unknown' };
  return status === 422 ? { is: 'refused', fields: error.fields } : { is: 'ended' };
}

/** Lists in an address are separated by commas. */
export const LISTED = { array: { style: 'form', explode: false } } as const;

/**
 * Talks to the server; what is asked about and not sent is read in the unit that is shown, and told without the parts that nobody
 * looks at.
 */
export function overHttp(unit: () => LengthUnit, without: () => Part[], shipment?: string): Transport {
  let asked: AbortController | undefined;
  return {
    load: (id) => reply(answer(api.GET('/api/v1/shipments/{id}', { params: { path: { id } } }))),
    async preview(inputs) {
      asked?.abort();
      asked = new AbortController();
      const { signal } = asked;
      const body = { inputs, unit: unit(), ...(shipment ? { shipment } : {}) };
      try {
        const left = without();
        const params = left.length > 0 ? { query: { without: left } } : {};
        const asking = { body, signal, params, querySerializer: LISTED };
        const preview = await answer(api.POST('/api/v1/plans/preview', asking));
        return { is: 'preview', preview, without: left };
      } catch (error) {
        return failure(error);
      }
    },
    send(id, { edit, version, from, change, unit: read }) {
      if (version === 0) {
        const inputs = patched(from, change) as Inputs;
        return reply(answer(api.POST('/api/v1/shipments', { body: { id, edit, inputs, unit: read } })));
      }
      const body = { edit, version, change: change as Record<string, never>, unit: read };
      return reply(answer(api.PATCH('/api/v1/shipments/{id}', { params: { path: { id } }, body })));
    },
    step(id, { edit, version, towards }) {
      const ask = { params: { path: { id } }, body: { version, edit } };
      return reply(
        answer(
          towards === 'undo'
            ? api.POST('/api/v1/shipments/{id}/undo', ask)
            : api.POST('/api/v1/shipments/{id}/redo', ask),
        ),
      );
    },
  };
}
