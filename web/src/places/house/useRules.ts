// The rules of the house while they are edited: what was changed, what is wrong, and what it would do.
import { useDebounceFn } from '@vueuse/core';
import { computed, reactive, ref, shallowRef, watch } from 'vue';

import { answer, api, Refused } from '@/api/client';
import type { Effects, HouseRules } from '@/api/types';
import { useStudio } from '@/api/useStudio';

import { mergePatch, patched } from '@/shipment/draft';
import type { Json } from '@/shipment/draft';

import { editedLines, editedOdds } from './useOdds';
import type { EditedLine, EditedOdds } from './useOdds';

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
  });
  const errors = ref<Record<string, string>>({});
  const effects = shallowRef<Effects>();
  const trouble = ref('');
  const busy = ref(false);
  /** The rules of the house that are edited. */
  const basis = shallowRef<EditedRules>();
  /** Somebody else changed the house while rules were edited here. */
  const elsewhere = ref(false);
  let asked = 0;

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

  async function look(): Promise<void> {
    const place = ++asked;
    if (!changed.value) {
      effects.value = undefined;
      errors.value = {};
      return;
    }
    try {
      const seen = await answer(api.POST('/api/v1/studio/rules/preview', { body: body() }));
      if (place === asked) {
        effects.value = seen;
        errors.value = {};
        trouble.value = '';
      }
    } catch (error) {
      if (place === asked) failed(error);
    }
  }

  function body(): { rules: HouseRules } {
    return { rules: JSON.parse(JSON.stringify(rules)) as HouseRules };
  }

  function failed(error: unknown): void {
    effects.value = undefined;
    if (error instanceof Refused && error.problem.status === 422) errors.value = error.fields;
    else trouble.value = error instanceof Error ? error.message : 'something went wrong in the page';
  }

  async function apply(): Promise<void> {
    busy.value = true;
    try {
      await answer(api.PUT('/api/v1/studio/rules', { body: body() }));
      await reload();
    } catch (error) {
      if (error instanceof Refused && error.problem.type === '/problems/stale') await reload();
      else failed(error);
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
      failed(error);
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
  const lookSoon = useDebounceFn(look, LOOK_AFTER_MS);
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
