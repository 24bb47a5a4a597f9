// A layout while it is looked at: read, looked for once more, and sheet after sheet cut.
import { computed, onScopeDispose, ref } from 'vue';

import { answer, api, Refused } from '@/api/client';
import { read, useRead } from '@/api/queries';
import type { Cutting, CutTool, LayoutOf } from '@/api/types';

/** A round of looking for a better layout, and how many there are at most. */
const ROUND_MS = 1500;
export const ROUNDS = 12;
const EFFORT = 20_000;

export function useCutting(id: () => string) {
  const key = computed(() => ['cutting', id()]);
  const {
    data: cutting,
    away,
    refused,
  } = useRead<Cutting>({
    queryKey: key,
    queryFn: ({ signal }) =>
      answer(api.GET('/api/v1/cuttings/{id}', { params: { path: { id: id() } }, signal })),
  });
  const trouble = ref('');
  const busy = ref(false);
  /** How many rounds are done; nothing while nobody looks. */
  const round = ref<number>();
  let seed = 1;
  /** Gives up the round that runs: what it would have found is not waited for. */
  let giveUp: AbortController | undefined;

  async function changed(change: () => Promise<Cutting>, givenUp = () => false): Promise<boolean> {
    trouble.value = '';
    busy.value = true;
    try {
      await read.cancelQueries({ queryKey: key.value });
      read.setQueryData(key.value, await change());
      void read.invalidateQueries({ queryKey: ['shelf'] });
      return true;
    } catch (error) {
      // Whatever it is laid out to by now is read again.
      void read.invalidateQueries({ queryKey: key.value });
      if (givenUp()) return false;
      trouble.value =
        error instanceof Refused ? error.problem.detail : 'the server can’t be reached; try again';
      return false;
    } finally {
      busy.value = false;
    }
  }

  interface Again {
    of?: LayoutOf;
    tool?: CutTool;
    effort?: number;
    budget_ms?: number;
  }
  const again = (how: Again = {}) => {
    seed += 1;
    giveUp = new AbortController();
    const { signal } = giveUp;
    const body = { seed, ...how };
    return changed(
      () =>
        answer<Cutting>(
          api.POST('/api/v1/cuttings/{id}/again', { params: { path: { id: id() } }, body, signal }),
        ),
      () => signal.aborted,
    );
  };

  /** Looks for a better layout round after round, until it is stopped; the best stays. */
  async function look(): Promise<void> {
    round.value = 0;
    while (round.value !== undefined && round.value < ROUNDS) {
      if (!(await again({ effort: EFFORT, budget_ms: ROUND_MS }))) break;
      // It may have been stopped while the round ran.
      if (round.value !== undefined) round.value += 1;
    }
    round.value = undefined;
  }
  const stop = () => {
    if (round.value !== undefined) giveUp?.abort();
    round.value = undefined;
  };
  onScopeDispose(stop);

  const sheet = (n: number) => ({ path: { id: id(), n } });
  return {
    cutting,
    away,
    refused,
    trouble,
    busy,
    round,
    again,
    look,
    stop,
    cut: (n: number, keep: number[], place: string) =>
      changed(() =>
        answer<Cutting>(
          api.PUT('/api/v1/cuttings/{id}/sheets/{n}', {
            params: sheet(n),
            body: { keep, place, print: cutting.value?.print },
          }),
        ),
      ),
    notCut: (n: number) =>
      changed(() => answer<Cutting>(api.DELETE('/api/v1/cuttings/{id}/sheets/{n}', { params: sheet(n) }))),
  };
}
