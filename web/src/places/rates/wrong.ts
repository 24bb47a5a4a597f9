// Where a price list is wrong, by its place in its form; each field asks for its own.
import { inject, provide } from 'vue';
import type { InjectionKey, Ref } from 'vue';

/** Where something is wrong, as the server names it, and what. */
export interface Wrong {
  place: string;
  says: string;
}

const WRONG: InjectionKey<Readonly<Ref<readonly Wrong[]>>> = Symbol('wrong');

/** Tells the fields of a form what is wrong in it. */
export function tellWrong(wrong: Readonly<Ref<readonly Wrong[]>>): void {
  provide(WRONG, wrong);
}

/** What is wrong at a place of the form; nothing where it is well. */
export function useWrong(): (place: string) => string | undefined {
  const wrong = inject(WRONG);
  return (place) =>
    wrong?.value.find((one) => one.place === place || one.place.startsWith(`${place}/`))?.says;
}
