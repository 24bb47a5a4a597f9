/** Where the pack sheet of a shipment is printed; its code leads back to where this page was opened. */
export function sheetOf(id: string): string {
  return `/api/v1/shipments/${id}/pack-sheet?at=${encodeURIComponent(window.location.origin)}`;
}
