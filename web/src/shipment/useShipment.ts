// One shipment while it is open: what is typed, what follows from it, and keeping both safe.
import { createInjectionState, useDebounceFn, useEventListener } from '@vueuse/core';
import { v7 as newId } from 'uuid';
import { computed, onScopeDispose, reactive, ref, shallowRef, toRaw, watch } from 'vue';

import { answer, api, Refused, Unreachable } from '@/api/client';
import type { Choices, Inputs, Place, Preview, Shipment, Summary, WorkLine, Worked } from '@/api/types';
import { useUnits } from '@/units/useUnits';

import { choose, draftOf, inputsOf, isChosen, mergePatch, patched, pathsOf, withoutPaths } from './draft';
import type { Draft, Json } from './draft';
import { keep, keptFor } from './kept';

export type SaveState =
  'opening' | 'missing' | 'saved' | 'waiting' | 'saving' | 'refused' | 'unreachable' | 'stale';

export interface Conflict {
  theirs: Shipment;
  mine: Json;
  /** The fields that this page changed. */
  fields: string[];
}

export interface Figures {
  worked: Worked;
  summary: Summary | null;
  line: WorkLine;
}

const PREVIEW_AFTER_MS = 90;
const SAVE_AFTER_MS = 600;
const TRY_AGAIN_AFTER_MS = 2500;
const NOTHING_TYPED = JSON.stringify(inputsOf(draftOf({})));

function figuresOf(from: Preview | Shipment): Figures {
  return { worked: from.worked, summary: from.summary ?? null, line: from.line };
}

function open(id: string) {
  const { unit } = useUnits();
  const draft = reactive<Draft>(draftOf({}));
  const stored = shallowRef<Shipment>();
  const figures = shallowRef<Figures>();
  const errors = ref<Record<string, string>>({});
  const state = ref<SaveState>('opening');
  const conflict = shallowRef<Conflict>();
  const trouble = ref('');

  /** The inputs that the draft was last in step with, as typed. */
  let basis: Json = JSON.parse(NOTHING_TYPED) as Json;
  let saving: Promise<void> | undefined;
  let asked: AbortController | undefined;
  let retry: ReturnType<typeof setTimeout> | undefined;
  /** A change that was sent and not answered: it may be stored already, so it is sent again as it was. */
  let unanswered: { edit: string; version: number; change: Json } | undefined;

  const typed = () => inputsOf(toRaw(draft)) as Json;
  const change = () => mergePatch(basis, typed());

  function adopt(shipment: Shipment): void {
    stored.value = shipment;
    figures.value = figuresOf(shipment);
    errors.value = {};
    Object.assign(draft, draftOf(shipment.inputs));
    basis = JSON.parse(JSON.stringify(typed())) as Json;
    state.value = 'saved';
    keep(id, undefined);
  }

  async function load(): Promise<void> {
    const kept = keptFor(id);
    if (!kept && startedHere.has(id) && !stored.value) {
      state.value = 'saved';
      return;
    }
    try {
      adopt(await answer(api.GET('/api/v1/shipments/{id}', { params: { path: { id } } })));
    } catch (error) {
      if (error instanceof Refused && error.problem.status === 404 && kept?.version === 0)
        state.value = 'saved';
      else return failed(error, load);
    }
    if (kept) restore(kept.version, kept.change);
  }

  function restore(version: number, kept: Json): void {
    const now = stored.value;
    if (now && now.version !== version) {
      clash(now, kept);
      return;
    }
    Object.assign(draft, draftOf(patched(typed(), kept) as Inputs));
  }

  function clash(theirs: Shipment, mine: Json): void {
    const stands = inputsOf(draftOf(theirs.inputs)) as Json;
    // A reply that was lost on the way: what stands there is what was typed here.
    if (mergePatch(stands, patched(stands, mine)) === undefined) return adopt(theirs);
    conflict.value = { theirs, mine, fields: pathsOf(mine) };
    state.value = 'stale';
  }

  function failed(error: unknown, again: () => Promise<void>): void {
    if (error instanceof DOMException) return;
    if (error instanceof Refused && error.problem.status === 409 && error.problem.current) {
      clash(error.problem.current, change() ?? {});
    } else if (error instanceof Refused && error.problem.status === 422) {
      errors.value = error.fields;
      state.value = 'refused';
    } else if (error instanceof Refused && error.problem.type === '/problems/put-away') {
      void putAwayElsewhere();
    } else if (error instanceof Refused && error.problem.status === 404) {
      state.value = 'missing';
    } else {
      trouble.value = error instanceof Unreachable ? error.message : 'something went wrong in the page';
      state.value = 'unreachable';
      clearTimeout(retry);
      retry = setTimeout(() => void again(), TRY_AGAIN_AFTER_MS);
    }
  }

  /** Somebody put it away while something was typed here: the page says so, and keeps what was typed. */
  async function putAwayElsewhere(): Promise<void> {
    const asked = api.GET('/api/v1/shipments/{id}', { params: { path: { id } } });
    const now = await answer(asked).catch(() => undefined);
    if (now && stored.value) stored.value = { ...stored.value, place: now.place };
    state.value = 'refused';
  }

  /** Puts it on the bench, in the archive or in the bin, with everything that was typed. */
  async function put(place: Place): Promise<void> {
    if (place !== 'bench') await save();
    const asked = api.PUT('/api/v1/shipments/{id}/place', { params: { path: { id } }, body: { place } });
    try {
      const now = await answer(asked);
      if (change()) stored.value = now.version === stored.value?.version ? now : stored.value;
      else adopt(now);
      if (place === 'bench') await save();
    } catch (error) {
      failed(error, () => put(place));
    }
  }

  async function preview(): Promise<void> {
    asked?.abort();
    asked = new AbortController();
    const body = { inputs: typed() as Inputs, unit: unit.value };
    try {
      figures.value = figuresOf(
        await answer(api.POST('/api/v1/plans/preview', { body, signal: asked.signal })),
      );
      errors.value = {};
    } catch (error) {
      if (!(error instanceof Unreachable)) failed(error, preview);
    }
  }

  /** Stores what can be stored; what was refused stays in the page until it is put right. */
  async function save(): Promise<void> {
    if (saving) {
      await saving;
      return save();
    }
    const whole = change();
    const sent = whole && withoutPaths(whole, Object.keys(errors.value));
    if (!sent || conflict.value) {
      if (!conflict.value) state.value = whole ? 'refused' : 'saved';
      return;
    }
    state.value = 'saving';
    saving = send(sent)
      .catch((error: unknown) => refusedOrFailed(error, sent))
      .finally(() => {
        saving = undefined;
      });
    await saving;
  }

  /** Marks what was refused, and stores the rest of what was sent without it. */
  function refusedOrFailed(error: unknown, sent: Json): void {
    const before = errors.value;
    failed(error, save);
    if (state.value !== 'refused') return;
    const refused = Object.keys(errors.value);
    errors.value = { ...before, ...errors.value };
    if (pathsOf(sent).some((path) => refused.includes(path))) void saveSoon();
  }

  async function send(sent: Json): Promise<void> {
    const now = stored.value;
    if (now && unanswered?.version !== now.version) unanswered = undefined;
    const body = unanswered ?? { edit: newId(), version: now?.version ?? 0, change: sent };
    const path = { id };
    const asked = now
      ? api.PATCH('/api/v1/shipments/{id}', {
          params: { path },
          body: { ...body, change: body.change as Record<string, never>, unit: unit.value },
        })
      : api.POST('/api/v1/shipments', {
          body: { id, inputs: patched(basis, body.change) as Inputs, unit: unit.value },
        });
    unanswered = body;
    const shipment = await answer<Shipment>(asked).catch((error: unknown) => {
      if (error instanceof Refused) unanswered = undefined;
      throw error;
    });
    unanswered = undefined;
    stored.value = shipment;
    startedHere.delete(id);
    basis = patched(basis, body.change);
    note(shipment.inputs.lifted_for ?? {});
    const left = change();
    keep(id, left === undefined ? undefined : { version: shipment.version, change: left });
    if (!left) figures.value = figuresOf(shipment);
    state.value = left ? (Object.keys(errors.value).length > 0 ? 'refused' : 'waiting') : 'saved';
    if (left && state.value === 'waiting') void saveSoon();
  }

  /** Takes over what the server noted that each Stop was lifted for. */
  function note(lifted: Record<string, string>): void {
    draft.lifted_for = { ...lifted };
    basis = patched(basis, { lifted_for: null });
    basis = patched(basis, { lifted_for: { ...lifted } });
  }

  async function step(towards: 'undo' | 'redo'): Promise<void> {
    await save();
    const now = stored.value;
    if (!now || now.place !== 'bench' || conflict.value) return;
    // A value that was refused was never stored: taking it back is the undo.
    if (change()) return adopt(now);
    const ask = { params: { path: { id } }, body: { version: now.version, edit: newId() } };
    try {
      const asked =
        towards === 'undo'
          ? api.POST('/api/v1/shipments/{id}/undo', ask)
          : api.POST('/api/v1/shipments/{id}/redo', ask);
      adopt(await answer(asked));
    } catch (error) {
      if (!(error instanceof Refused && error.problem.type === '/problems/no-state')) {
        failed(error, () => step(towards));
      }
    }
  }

  /** Lays this page's change over what another one stored, or gives it up. */
  function settle(whose: 'mine' | 'theirs'): void {
    const open = conflict.value;
    if (!open) return;
    conflict.value = undefined;
    adopt(open.theirs);
    if (whose === 'mine') Object.assign(draft, draftOf(patched(typed(), open.mine) as Inputs));
  }

  /** Takes over what another page stored meanwhile, when nothing is typed here. */
  async function refresh(): Promise<void> {
    if (state.value !== 'saved' || !stored.value || change()) return;
    const now = await answer(api.GET('/api/v1/shipments/{id}', { params: { path: { id } } })).catch(
      () => undefined,
    );
    if (now && now.version !== stored.value.version && !change()) adopt(now);
  }

  const previewSoon = useDebounceFn(preview, PREVIEW_AFTER_MS);
  const saveSoon = useDebounceFn(save, SAVE_AFTER_MS);
  watch(draft, () => {
    if (state.value === 'opening' || state.value === 'missing') return;
    // What was picked until now is kept once something is chosen by hand.
    const began = figures.value?.worked.plan?.began?.preset;
    if (began && !draft.choices.preset && isChosen(draft.choices)) draft.choices.preset = began;
    const left = change();
    if (conflict.value) return;
    keep(id, left === undefined ? undefined : { version: stored.value?.version ?? 0, change: left });
    if (!left) {
      if (stored.value) figures.value = figuresOf(stored.value);
      errors.value = {};
      return;
    }
    if (state.value !== 'saving') state.value = 'waiting';
    void previewSoon();
    void saveSoon();
  });
  useEventListener(window, 'focus', () => void refresh());
  onScopeDispose(() => {
    clearTimeout(retry);
    asked?.abort();
  });
  void load();

  return {
    id,
    draft,
    errors,
    state,
    trouble,
    conflict,
    stored,
    plan: computed(() => figures.value?.worked.plan ?? undefined),
    size: computed(() => figures.value?.worked.size ?? undefined),
    quotes: computed(() => figures.value?.worked.quotes ?? []),
    summary: computed(() => figures.value?.summary ?? undefined),
    fingerprint: computed(() => figures.value?.worked.fingerprint ?? ''),
    line: computed(() => figures.value?.line),
    missing: computed(() => figures.value?.worked.missing ?? []),
    canUndo: computed(() => stored.value?.can_undo === true && stored.value.place === 'bench'),
    canRedo: computed(() => stored.value?.can_redo === true && stored.value.place === 'bench' && !change()),
    save,
    /** Lays choices over those of the shipment. */
    choose: (wanted: Partial<Choices>) => choose(draft.choices, wanted),
    /** What was typed, as the server is asked with it. */
    typed: () => typed() as Inputs,
    /** Takes back why a Stop was lifted, or lifts it for things as they are. */
    lift: (code: string, reason: string | undefined) => {
      Reflect.deleteProperty(draft.lifted_for, code);
      if (reason === undefined) Reflect.deleteProperty(draft.lifted, code);
      else draft.lifted[code] = reason;
    },
    /** Why there can be no plan, in sentences. */
    refusals: computed(() => figures.value?.worked.refusals ?? []),
    /** Where it is put away, if it is. */
    away: computed(() => {
      const place = stored.value?.place ?? 'bench';
      return place === 'bench' ? undefined : place;
    }),
    put,
    undo: () => step('undo'),
    redo: () => step('redo'),
    settle,
  };
}

/** Shipments begun in this page that are not stored yet. */
const startedHere = new Set<string>();

/** Returns the id for a shipment that is begun now; it is stored once something is typed. */
export function beginShipment(): string {
  const id = newId();
  startedHere.add(id);
  return id;
}

const [provideShipment, injectShipment] = createInjectionState(open);

export { provideShipment };

/** Returns the shipment that is open around this component. */
export function useShipment(): ReturnType<typeof open> {
  const shipment = injectShipment();
  if (!shipment) throw new Error('useShipment is called outside of an open shipment');
  return shipment;
}
