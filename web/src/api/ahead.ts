// What is asked for before the program is there: whoever reads it first takes that answer, and nobody takes it later.

const asked = new Map<string, Promise<Response>>();

/** Asks for what a page reads first. */
export function askAhead(paths: readonly string[]): void {
  for (const path of paths) {
    const answer = fetch(path);
    // A server that is away is asked again by whoever reads.
    answer.catch(() => undefined);
    asked.set(path, answer);
  }
}

/** Returns the answer to a question that was asked ahead, once. */
export function answerAhead({ method, url }: Request): Promise<Response> | undefined {
  if (method !== 'GET') return undefined;
  const { pathname, search } = new URL(url);
  const answer = asked.get(pathname + search);
  asked.delete(pathname + search);
  return answer;
}

/** Forgets what nobody has read by the time the first view stands: it would be old. */
export function forgetAhead(): void {
  asked.clear();
}
