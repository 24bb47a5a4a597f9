// What is in the way of a shipment, in the words of the server.
import type { Matter } from '@/api/types';

/** The first matter and how many follow it, for a place that has one line. */
export function firstMatter(
  against: Matter[],
): { level: Matter['level']; kind: Matter['kind']; says: string; more: number } | undefined {
  const [first, ...others] = against;
  if (!first) return undefined;
  const says = first.level === 'stop' ? `Stop: ${first.says}` : first.says;
  return { level: first.level, kind: first.kind, says, more: others.length };
}

/** That others follow. */
export function besides(more: number): string {
  return more > 0 ? `+${String(more)} more` : '';
}
