// What was typed and not stored yet, kept in this browser so that a slip of the hand loses nothing.
import type { Json } from './draft';

export interface Kept {
  /** The version that the change is based on; 0 for a shipment that is not stored yet. */
  version: number;
  change: Json;
}

const keyOf = (id: string) => `hummock.typed.${id}`;

export function keep(id: string, kept: Kept | undefined): void {
  try {
    if (kept) localStorage.setItem(keyOf(id), JSON.stringify(kept));
    else localStorage.removeItem(keyOf(id));
  } catch {
    // Without room in the browser the page still works; only a reload before saving would lose.
  }
}

export function keptFor(id: string): Kept | undefined {
  try {
    const text = localStorage.getItem(keyOf(id));
    return text ? (JSON.parse(text) as Kept) : undefined;
  } catch {
    return undefined;
  }
}
