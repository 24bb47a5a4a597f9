import { computed } from 'vue';

import { useStudio } from '@/api/useStudio';

/** The house rules that a layer's controls fall back on, and the boards to choose from. */
export function useHouse() {
  const { studio } = useStudio();

  const allowance = (key: string) => studio.value?.allowances.find((known) => known.key === key);
  const rule = (key: string) =>
    (studio.value?.rules.allowances as Record<string, number> | undefined)?.[key] ??
    allowance(key)?.default ??
    0;
  const boards = computed(() => studio.value?.catalogue.boards ?? []);

  return {
    name: computed(() => studio.value?.rules.name ?? ''),
    rule,
    most: (key: string) => allowance(key)?.most ?? 0,
    least: (key: string) => allowance(key)?.least ?? 0,
    /** What a box can be made of: what folds, and foam board, which is slit. */
    boxBoards: computed(() =>
      boards.value
        .filter(({ folds, build }) => folds || build === 'foam_core')
        .map(({ id, name }) => ({ value: id, text: name })),
    ),
    allBoards: computed(() => boards.value.map(({ id, name }) => ({ value: id, text: name }))),
    boardName: (id: string | undefined) => boards.value.find((board) => board.id === id)?.name ?? '',
    materials: computed(() => studio.value?.rules.materials),
  };
}
