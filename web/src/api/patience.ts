// How long an answer is waited for, and whether somebody waits for one that does not come.
import { ref } from 'vue';

import { answerAhead } from './ahead';

const USUAL_MS = 10_000;
/** What takes its time by itself. */
const LONG: readonly (readonly [RegExp, number])[] = [
  [/\/api\/v1\/(sums\/cutting|cuttings)\b/, 40_000],
  [/\/api\/v1\/studio\/(backup|restore)\b/, 60_000],
  [/\/photographs\//, 60_000],
  [/\/api\/v1\/documents\b/, 20_000],
];
/** Whoever has waited so long is told. */
const TOLD_MS = 3_000;

/** The server has not answered for some seconds, and has said nothing since. */
export const silent = ref(false);

/** Fails once a signal ends what is waited for: what was asked ahead doesn't know of it. */
function ended(signal: AbortSignal): Promise<never> {
  return new Promise((_, reject) => {
    signal.addEventListener('abort', () => reject(signal.reason as Error));
  });
}

/** Asks the server, and gives up once it has had its time: a server that hangs is as good as none. */
export async function patient(request: Request): Promise<Response> {
  const { pathname } = new URL(request.url, location.href);
  const long = LONG.find(([path]) => path.test(pathname));
  const over = new AbortController();
  const given = () => over.abort(request.signal.reason);
  request.signal.addEventListener('abort', given);
  if (request.signal.aborted) given();
  const told = long ? undefined : setTimeout(() => (silent.value = true), TOLD_MS);
  const ends = setTimeout(
    () => over.abort(new DOMException('the server does not answer', 'TimeoutError')),
    long?.[1] ?? USUAL_MS,
  );
  try {
    const fetched = () => fetch(request, { signal: over.signal });
    const asked = answerAhead(request)?.catch(fetched) ?? fetched();
    const answer = await Promise.race([asked, ended(over.signal)]);
    silent.value = false;
    return answer;
  } finally {
    clearTimeout(told);
    clearTimeout(ends);
    request.signal.removeEventListener('abort', given);
  }
}
