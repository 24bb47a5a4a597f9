// The walk through the steps of a packing: where somebody is, how it goes on, and by which keys.
import { computed, ref, watch } from 'vue';
import type { Ref } from 'vue';

import type { PackStepView } from '@/api/types';
import { useNextStep } from '@/frame/foot';
import type { Said } from '@/frame/foot';
import { usePedal } from '@/keys/useKeys';
import { useShipment } from '@/shipment/useShipment';

import type { NextParcel } from './day';
import { titleOf } from './steps';
import type { usePacking } from './usePacking';

/** What has a press of its own. */
export const OWN = 'label, input, textarea, select, button, a, summary, .modal, [contenteditable]';

export function useWalk(
  { steps, standing, tick }: Pick<ReturnType<typeof usePacking>, 'steps' | 'standing' | 'tick'>,
  asList: Ref<boolean>,
  next: Ref<NextParcel | undefined>,
) {
  const { id, plan } = useShipment();
  const key = ref<string>();
  /** What is looked at: where somebody went, else the first step that is not done. */
  const place = computed(() => {
    const chosen = steps.value.findIndex((step) => step.key === key.value);
    if (chosen >= 0) return chosen;
    const next = steps.value.findIndex((step) => standing(step) !== 'done');
    return next >= 0 ? next : steps.value.length - 1;
  });
  const step = computed((): PackStepView | undefined => steps.value[place.value]);
  const finished = computed(
    () => steps.value.length > 0 && steps.value.every((one) => standing(one) === 'done'),
  );
  /** Whether somebody wanted to go on where something has to be answered or done first. */
  const nudged = ref(false);
  watch(
    () => step.value?.key,
    () => {
      nudged.value = false;
    },
  );
  const first = (keys: readonly string[]) =>
    steps.value.find((one) => keys.includes(one.key) && standing(one) !== 'done');
  /** Whether something has to be answered here. */
  const asks = computed(() => step.value?.look?.stops === true);
  /** What has to be done before this step. */
  const before = computed(() => step.value && first(step.value.waits_for));

  function go(to: number): void {
    key.value = steps.value[Math.max(0, Math.min(to, steps.value.length - 1))]?.key;
  }
  /** Does the step and goes on; a question is answered by its button alone, not by a slip of the hand. */
  function forward(answered = false): void {
    const [now, at] = [step.value, place.value];
    if (!now) return;
    if (before.value) {
      nudged.value = true;
      return;
    }
    if (standing(now) !== 'done') {
      if (now.look?.stops && !answered) {
        nudged.value = true;
        return;
      }
      tick(now);
    }
    go(at + 1);
  }

  usePedal({
    works: () => !asList.value,
    own: OWN,
    on: () => forward(),
    back: () => go(place.value - 1),
  });
  /** Those that can be ticked together: nothing has to be answered at them. */
  const plain = computed(() =>
    steps.value.filter((one) => standing(one) !== 'done' && one.look?.stops !== true),
  );
  useNextStep((): Said | undefined => {
    const now = step.value;
    if (!plan.value) return { verb: { text: 'Measure it first', to: { name: 'measure', params: { id } } } };
    if (!now) return undefined;
    if (finished.value) {
      const then = next.value;
      return {
        verb: { text: 'Weigh it', to: `/shipments/${id}/weigh` },
        hint: { level: 'note', says: 'Packed.' },
        ...(then ? { other: { text: `Next: ${then.title}`, to: then.to } } : {}),
      };
    }
    if (asList.value)
      return {
        verb: { text: 'All done', press: () => tick(...plain.value), disabled: plain.value.length === 0 },
      };
    const first = before.value;
    const other = place.value > 0 ? { other: { text: 'Back', press: () => go(place.value - 1) } } : {};
    if (first)
      return {
        ...other,
        verb: { text: 'Done, next', disabled: true },
        hint: {
          level: 'mind',
          says: `First: ${titleOf(first)}.`,
          way: { text: 'Go there', press: () => (key.value = first.key) },
        },
      };
    if (standing(now) === 'done')
      return { ...other, verb: { text: 'Next', press: () => go(place.value + 1) } };
    // What has to be answered is read where it is answered.
    const asked = now.look && asks.value ? { hint: { level: 'note' as const, says: now.look.asks } } : {};
    return {
      ...other,
      ...asked,
      verb: { text: asks.value ? 'Yes: done, next' : 'Done, next', press: () => forward(true) },
    };
  });
  return { step, place, finished, nudged, asks, before, go, forward, goTo: (to: string) => (key.value = to) };
}
