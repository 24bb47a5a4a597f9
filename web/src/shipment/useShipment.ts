// One shipment while it is open: the state machine, run against this server and browser, as fields and figures see it.
import { createInjectionState, useEventListener } from '@vueuse/core';
import { computed, onScopeDispose, reactive, ref, shallowRef, toRaw, watch } from 'vue';
import type { Ref } from 'vue';

import { answer, api } from '@/api/client';
import type { Choices, Inputs, Place, Way } from '@/api/types';
import { useStudio } from '@/api/useStudio';
import { useUnits } from '@/units/useUnits';

import { startedHere } from './begun';
import { choose, draftOf, inputsOf, isChosen, lift, mergePatch, startFrom } from './draft';
import type { Draft, Json } from './draft';
import { drive } from './driver';
import { figuresOf, saveState } from './figures';
import { lookedAt } from './looked';
import type { Open } from './machine';
import { portsOf } from './ports';
import { waysOf } from './useWays';

function open(id: string) {
  const { unit } = useUnits();
  // What is opened while something is not stored yet is asked for; all else was told whole.
  const looked = lookedAt(() => driver.tell({ is: 'due', what: 'preview' }));
  const ports = portsOf(() => unit.value, looked.without, id);
  const draft = reactive<Draft>(draftOf({}));
  const typed = () => JSON.parse(JSON.stringify(inputsOf(toRaw(draft)))) as Json;
  const shown = shallowRef<Open>();

  let isShowing = false;
  const driver = drive(id, startedHere.has(id), ports, (state) => {
    shown.value = state;
    if (state.shipment) startedHere.delete(id);
    if (mergePatch(typed(), state.typed) === undefined) return;
    isShowing = true;
    Object.assign(draft, draftOf(state.typed as unknown as Inputs));
    isShowing = false;
  });
  const state = computed(() => shown.value ?? driver.state);
  const figures = figuresOf(state);

  // At once, so that no answer comes between a key and what it typed.
  const follow = () => {
    if (isShowing) return;
    // What was picked until now is kept once something is chosen by hand.
    const began = figures.plan.value?.began?.preset;
    if (began && !draft.choices.preset && isChosen(draft.choices)) draft.choices.preset = began;
    driver.tell({ is: 'typed', inputs: typed() });
  };
  watch(draft, follow, { deep: true, flush: 'sync' });

  /** Stores what can be stored now, and waits until that is answered or lost. */
  async function save(): Promise<void> {
    driver.tell({ is: 'due', what: 'save', stamp: ports.stamp() });
    while (driver.state.waiting)
      await new Promise((seen) => {
        watch(shown, seen, { once: true, flush: 'sync' });
      });
  }

  /** Puts it on the bench, in the archive or in the bin, with everything that was typed; fails as {@link answer} does. */
  async function put(place: Place): Promise<void> {
    if (place !== 'bench') await save();
    const asked = api.PUT('/api/v1/shipments/{id}/place', { params: { path: { id } }, body: { place } });
    driver.tell({ is: 'seen', shipment: await answer(asked) });
  }

  /** Takes over what another page stored meanwhile, when nothing is typed here. */
  async function refresh(): Promise<void> {
    if (saveState(driver.state) !== 'saved' || !driver.state.shipment) return;
    const reply = await ports.transport.load(id);
    if (reply.is === 'shipment') driver.tell({ is: 'seen', shipment: reply.shipment });
  }
  useEventListener(window, 'focus', () => void refresh());
  onScopeDispose(() => driver.stop());

  const step = (towards: 'undo' | 'redo') => driver.tell({ is: 'wanted', towards, stamp: ports.stamp() });
  const { studio } = useStudio();
  return {
    id,
    draft,
    ...figures,
    /** The money that its sums are in: of what left, the one that it left in. */
    money: computed(() => draft.currency || (studio.value?.catalogue.currency ?? 'money')),
    /** Of what is stored; what is asked of the stored shipment is asked anew when it counts up. */
    version: computed(() => state.value.version),
    save,
    put,
    refresh,
    /** Says when somebody looks at a part that is folded away most of the time. */
    look: looked.look,
    /** The other ways to pack it. */
    ways: waysOf({
      // What has left is packed in no other way.
      plan: computed(() => (figures.kept.value ? undefined : figures.plan.value)),
      typed: () => typed() as unknown as Inputs,
      unit: () => unit.value,
    }),
    /** Lays choices over those of the shipment, and stores them at once: what is pressed is whole. */
    choose: (wanted: Partial<Choices>) => {
      choose(draft.choices, wanted);
      void save();
    },
    /** Packs and sends it in another way: its choices, and its service. */
    takeWay: (way: Way) => {
      draft.service = way.service;
      choose(draft.choices, way.choices as Partial<Choices>);
      void save();
    },
    follow: (preset: string) => {
      startFrom(draft, preset);
      void save();
    },
    /** A text that stands in a field and is no value yet: it outlives a slip of the hand too. */
    text: (field: string) =>
      computed({
        get: () => state.value.texts[field],
        set: (text: string | undefined) => driver.tell({ is: 'text', field, text }),
      }),
    /** Takes back why a Stop was lifted, or lifts it for things as they are. */
    lift: (code: string, reason: string | undefined) => lift(draft, code, reason),
    undo: () => step('undo'),
    redo: () => step('redo'),
    settle: (whose: 'mine' | 'theirs') => driver.tell({ is: 'settled', whose }),
  };
}

const [provideShipment, injectShipment] = createInjectionState(open);

export { provideShipment };

/** Returns a text that stands in a field and is no value yet; inside a shipment it outlives a slip of the hand. */
export function useLooseText(field: string): Ref<string | undefined> {
  return injectShipment()?.text(field) ?? ref<string>();
}

/** Returns the shipment that is open around this component. */
export function useShipment(): ReturnType<typeof open> {
  const shipment = injectShipment();
  if (!shipment) throw new Error('useShipment is called outside of an open shipment');
  return shipment;
}
