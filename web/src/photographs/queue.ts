// Photographs that were taken and have not arrived: kept in this browser, and sent one after the other as they were taken. Each has
// an id of its own, so that one whose answer was lost is sent again and kept once.

/** A photograph that waits. */
export interface Waiting {
  id: string;
  /** Whose shipment it is; of that studio's page alone it is sent. */
  studio?: string;
  shipment: string;
  /** The key of the step that it was taken at. */
  step: string;
  taken_at: string;
  file: Blob;
  /** Why the server did not take it; it stays until somebody throws it away. */
  refused?: string;
}

/** Where they wait. */
export interface Keeping {
  all: () => Promise<Waiting[]>;
  put: (photograph: Waiting) => Promise<void>;
  drop: (id: string) => Promise<void>;
}

/** What came of sending one. */
export type Sent = { is: 'kept' } | { is: 'away' } | { is: 'refused'; why: string };

/** In the order in which they were taken. */
export const inOrder = (waiting: readonly Waiting[]): Waiting[] =>
  waiting.toSorted((one, other) => {
    if (one.taken_at !== other.taken_at) return one.taken_at < other.taken_at ? -1 : 1;
    return one.id < other.id ? -1 : 1;
  });

/**
 * Sends what waits, the first taken first. Where the server is away it stops, so that they arrive in order; one that is refused
 * keeps none behind it waiting. Tells whether the server is away.
 */
export async function sendAll(
  keeping: Keeping,
  send: (photograph: Waiting) => Promise<Sent>,
  changed: () => void,
): Promise<boolean> {
  for (const photograph of inOrder(await keeping.all())) {
    if (photograph.refused !== undefined) continue;
    const sent = await send(photograph);
    if (sent.is === 'away') return true;
    if (sent.is === 'kept') await keeping.drop(photograph.id);
    else await keeping.put({ ...photograph, refused: sent.why });
    changed();
  }
  return false;
}
