// Lays the parts of shipments out, and says where the layout is.
import { answer, api } from '@/api/client';
import type { Cutting, LayoutOf } from '@/api/types';

/** Of several what goes inside is cut first, the boxes once the wrapped pieces were measured; of one all at once. */
export async function layOut(shipments: string[], of?: LayoutOf): Promise<string> {
  const body = { shipments, of: of ?? (shipments.length > 1 ? 'inner' : 'all') } as const;
  const { id } = await answer<Cutting>(api.POST('/api/v1/cuttings', { body }));
  return `/tools/cutting/${id}`;
}
