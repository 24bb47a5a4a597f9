// The house rules in parts, each with an address of its own, and every rule among them by its words.
import type { Studio } from '@/api/types';

import { onPages } from './groups';

export const PARTS = [
  { key: 'questions', name: 'Questions', about: 'which pack, corners, plastic, tape, cover' },
  { key: 'layers', name: 'Layers', about: 'which layers a pack has, which ask' },
  { key: 'materials', name: 'Materials', about: 'what is taken where nothing else is said' },
  { key: 'bench', name: 'At the bench', about: 'what goes in, which looks stop' },
  { key: 'beginnings', name: 'Beginnings', about: 'presets, and from whom to begin' },
  { key: 'odds', name: 'Odds', about: 'hazards, places, the studio’s own record' },
  { key: 'allowances', name: 'All numbers', about: 'lengths, minutes, limits' },
] as const;
export type RulesPart = (typeof PARTS)[number]['key'];

/** Under which part a refused value stands, by how its path begins. */
const BEGINS: readonly (readonly [string, RulesPart])[] = [
  ['allowances', 'allowances'],
  ['enclosures', 'bench'],
  ['looks', 'bench'],
  ['beginnings', 'beginnings'],
  ['begin', 'beginnings'],
  ['odds', 'odds'],
  ['materials', 'materials'],
  ['layers', 'layers'],
  ['schools', 'questions'],
];

/** Returns the part that a value stands under. */
export function partOf(path: string): RulesPart {
  return BEGINS.find(([begins]) => path.startsWith(begins))?.[1] ?? 'questions';
}

export interface Rule {
  name: string;
  part: RulesPart;
  /** Where it stands on the page of its part. */
  at: string;
  words: string;
}

/** Every rule that can be looked for, with the numbers that a studio has. */
export function rulesOf(studio: Studio, numbers: Record<string, number | null>): Rule[] {
  const questions = studio.schools.map(({ key, question, schools }) => ({
    name: question,
    part: 'questions' as const,
    at: `[data-school="${key}"]`,
    words: [question, ...schools.flatMap(({ name, why }) => [name, why])].join(' '),
  }));
  const allowances = onPages(studio.allowances, numbers).map(({ key, name, reason }) => ({
    name,
    part: 'allowances' as const,
    at: `[name="allowances.${key}"]`,
    words: `${name} ${reason}`,
  }));
  const layers = studio.slots.map(({ name }) => ({
    name,
    part: 'layers' as const,
    at: 'h2',
    words: `${name} layer`,
  }));
  const parts = PARTS.map(({ key, name, about }) => ({
    name,
    part: key,
    at: 'h2',
    words: `${name} ${about}`,
  }));
  return [...parts, ...questions, ...allowances, ...layers];
}

/** The rules that hold every word of a search; those that are called so come first. */
export function found(rules: readonly Rule[], search: string): Rule[] {
  const words = search.toLocaleLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return [];
  const holds = (text: string) => words.every((word) => text.toLocaleLowerCase().includes(word));
  const called = rules.filter(({ name }) => holds(name));
  return [...called, ...rules.filter((rule) => !called.includes(rule) && holds(rule.words))];
}
