// The rules of the house while they are edited: what was changed, what is wrong, and what it would do.
import { keepPreviousData } from '@tanstack/vue-query';
import { useDebounceFn } from '@vueuse/core';
import { computed, reactive, ref, shallowRef, watch } from 'vue';

import { answer, api, Refused, Unreachable } from '@/api/client';
import { useRead } from '@/api/queries';
import type { Effects, HouseRules } from '@/api/types';
import { useStudio } from '@/api/useStudio';

import { mergePatch, patched } from '@/shipment/draft';
import type { Json } from '@/shipment/draft';

import { editedLines, editedOdds } from './useOdds';
import type { EditedLine, EditedOdds } from './useOdds';

/** A list of what goes in, every part present. */
export interface EditedSet {
  name: string;
  classes: string[];
  with_certificate: boolean;
  gifts: boolean;
  list: {
    key: string;
    kind: string;
    name: string;
    place: string;
    thickness_mm: number | null;
    mass_g: number | null;
    hard: boolean;
  }[];
}

/** Rules with every part present, as numbers and keys. */
export interface EditedRules {
  name: string;
  version: number;
  allowances: Record<string, number | null>;
  schools: Record<string, string>;
  layers: Record<string, boolean>;
  materials: Record<string, string>;
  odds: EditedOdds;
  beginnings: EditedLine[];
  enclosures: EditedSet[];
  looks_shown: string[];
}

const LOOK_AFTER_MS = 250;

function edited(rules: HouseRules): EditedRules {
  const whole = {
    layers: {},
    schools: {},
    allowances: {},
    ...rules,
    odds: editedOdds(rules.odds),
    beginnings: editedLines(rules.beginnings),
    enclosures: rules.enclosures ?? [],
    looks_shown: rules.looks_shown ?? [],
  };
  return JSON.parse(JSON.stringify(whole)) as EditedRules;
}

function asJson(rules: EditedRules): Json {
  return JSON.parse(JSON.stringify(rules)) as Json;
}

/** Rules as a text that is the same whatever order their keys came in. */
function sorted(rules: EditedRules): string {
  return JSON.stringify(rules, (_, value: unknown) =>
    typeof value === 'object' && value !== null && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([one], [other]) => one.localeCompare(other)))
      : value,
  );
}

/** Whether something was said against single fields. */
function isAtFields(error: unknown): error is Refused {
  return error instanceof Refused && error.problem.status === 422;
}

function saidOf(error: unknown): string {
  return error instanceof Error ? error.message : 'something went wrong in the page';
}

export function useRules() {
  const { studio, reload } = useStudio();
  const rules = reactive<EditedRules>({
    name: '',
    version: 0,
    allowances: {},
    schools: {},
    layers: {},
    materials: {},
    odds: editedOdds(undefined),
    beginnings: [],
    enclosures: [],
    looks_shown: [],
  });
  /** What is looked at: the rules as edited, once the hand rests; nothing where nothing is changed. */
  const asked = shallowRef<{ rules: HouseRules }>();
  const look = useRead<Effects>({
    queryKey: computed(() => ['rules', asked.value]),
    queryFn: async ({ signal }) => {
      const body = asked.value as { rules: HouseRules };
      return answer(api.POST('/api/v1/studio/rules/preview', { body, signal }));
    },
    enabled: computed(() => asked.value !== undefined),
    placeholderData: keepPreviousData,
  });
  /** What was said against the rules when they were to be kept. */
  const unkept = shallowRef<unknown>();
  const wrong = computed(() => unkept.value ?? look.refused.value);
  const errors = computed(() => (isAtFields(wrong.value) ? wrong.value.fields : {}));
  const effects = computed(() => (asked.value && !wrong.value ? look.data.value : undefined));
  const trouble = computed(() => {
    if (wrong.value !== undefined && !isAtFields(wrong.value)) return saidOf(wrong.value);
    return asked.value && look.away.value ? new Unreachable().message : '';
  });
  const busy = ref(false);
  /** The rules of the house that are edited. */
  const basis = shallowRef<EditedRules>();
  /** Somebody else changed the house while rules were edited here. */
  const elsewhere = ref(false);

  /** What is edited shares nothing with what it was taken from. */
  function take(from: EditedRules): void {
    Object.assign(rules, asJson(from));
  }

  /** Lays what is edited over the house as it stands by now. */
  function follow(house: HouseRules): void {
    const theirs = edited(house);
    const mine = basis.value && mergePatch(asJson(basis.value), asJson(rules));
    const moved = basis.value !== undefined && basis.value.version !== theirs.version;
    basis.value = theirs;
    if (mine === undefined) {
      take(theirs);
      elsewhere.value = false;
      return;
    }
    const laid = patched(asJson(theirs), mine) as unknown as EditedRules;
    take({ ...laid, version: theirs.version });
    elsewhere.value = (moved || elsewhere.value) && changed.value;
  }

  const changed = computed(() => basis.value !== undefined && sorted(basis.value) !== sorted(rules));

  function body(): { rules: HouseRules } {
    return { rules: JSON.parse(JSON.stringify(rules)) as HouseRules };
  }

  async function apply(): Promise<void> {
    busy.value = true;
    unkept.value = undefined;
    try {
      await answer(api.PUT('/api/v1/studio/rules', { body: body() }));
      await reload();
    } catch (error) {
      if (error instanceof Refused && error.problem.type === '/problems/stale') await reload();
      else unkept.value = error;
    } finally {
      busy.value = false;
    }
  }

  /** Keeps the rules as they stand under a name of the studio's own. */
  async function keepAs(name: string): Promise<boolean> {
    try {
      const asked = api.POST('/api/v1/studio/presets', { body: { rules: { ...body().rules, name } } });
      const { error, response } = await asked;
      if (response.ok) return true;
      throw new Refused(error as ConstructorParameters<typeof Refused>[0]);
    } catch (error) {
      unkept.value = error;
      return false;
    }
  }

  watch(
    () => studio.value?.rules,
    (house) => {
      if (house) follow(house);
    },
    { immediate: true },
  );
  const lookSoon = useDebounceFn(() => {
    unkept.value = undefined;
    asked.value = changed.value ? body() : undefined;
  }, LOOK_AFTER_MS);
  watch(rules, () => void lookSoon());

  return {
    rules,
    errors,
    effects,
    trouble,
    busy,
    changed,
    elsewhere,
    apply,
    keepAs,
    rename: (name: string) => {
      rules.name = name;
    },
    /** Puts everything back as the house has it. */
    discard: () => {
      if (basis.value) take(basis.value);
      elsewhere.value = false;
    },
    /** Takes the rules of a preset, to be looked at before they are applied. */
    follow: (from: HouseRules) => {
      take(edited({ ...from, version: basis.value?.version ?? from.version }));
    },
  };
}
