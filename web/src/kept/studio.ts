// Whose this browser's page is. What a browser keeps it keeps for that studio alone: another one at the same address never sees it.

const KEY = 'hummock.studio';
/** What was kept before studios were told apart. */
const OLD_TYPED = 'hummock.typed.';

function kept(): string {
  try {
    return localStorage.getItem(KEY) ?? '';
  } catch {
    return '';
  }
}

let known = kept();

/** Returns the studio's id as the server last said it; empty until it said so for the first time. */
export const studioShown = (): string => known;

/** Names something that is kept for the studio alone. */
export const ofStudio = (name: string): string => (known ? `hummock.${known}.${name}` : `hummock.${name}`);

/** Takes what was typed before this browser knew whose it is over for that studio. */
function adopt(): void {
  const typed = Array.from({ length: localStorage.length }, (_, at) => localStorage.key(at) ?? '').filter(
    (key) => key.startsWith(OLD_TYPED),
  );
  for (const key of typed) {
    localStorage.setItem(ofStudio(key.slice('hummock.'.length)), localStorage.getItem(key) ?? '');
    localStorage.removeItem(key);
  }
}

/** Hears whose an answer was; calls `another` where it is another studio's than the page was opened for. */
export function heardFrom(studio: string | null, another: () => void = () => window.location.reload()): void {
  if (!studio || studio === known) return;
  const before = known;
  known = studio;
  try {
    localStorage.setItem(KEY, studio);
    if (!before) adopt();
  } catch {
    // A browser that keeps nothing has nothing to keep apart.
  }
  if (before) another();
}
