// What the open shipment takes of the materials, and what of that is short.
import { keepPreviousData } from '@tanstack/vue-query';
import { computed } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import type { ShelfLine, ShipmentShelf } from '@/api/types';
import { amount } from '@/places/shelf/amounts';
import { useShipment } from '@/shipment/useShipment';
import { useUnits } from '@/units/useUnits';

export function useTakes() {
  const { id, version } = useShipment();
  const units = useUnits();
  const key = computed(() => ['shelf', 'of', id, version.value]);
  const { data, reload } = useRead<ShipmentShelf>({
    queryKey: key,
    queryFn: ({ signal }) =>
      answer(api.GET('/api/v1/shipments/{id}/shelf', { params: { path: { id } }, signal })),
    enabled: computed(() => version.value > 0),
    placeholderData: keepPreviousData,
  });
  return {
    key,
    data,
    reload,
    short: computed(() => data.value?.lines.filter((line) => line.short > 0) ?? []),
    /** What a line is called, with its size where it is a sheet. */
    named: (line: ShelfLine) =>
      line.kind === 'sheet' ? `${line.name} ${units.size(line.width_mm, line.height_mm)}` : line.name,
    /** An amount of a line: pieces, or as it is measured. */
    counted: (of: number, { measure }: ShelfLine) =>
      measure === 'pieces' ? String(of) : amount(of, measure),
  };
}
