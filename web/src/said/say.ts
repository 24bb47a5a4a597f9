// What is told to somebody who does not look: one place of the page that is read out when it is quiet, never at once.
import { createGlobalState, useDebounceFn } from '@vueuse/core';
import { ref } from 'vue';
import type { Directive, DirectiveBinding } from 'vue';

const AFTER_MS = 600;

/** What the page reads out next. */
export const useSaid = createGlobalState(() => {
  const aloud = ref('');
  let waiting: string[] = [];
  const read = useDebounceFn(() => {
    aloud.value = waiting.join('. ');
    waiting = [];
  }, AFTER_MS);
  return {
    aloud,
    /** Has a text read out, after what waits already; one that waits is not said twice. */
    say(text: string): void {
      if (!text || waiting.includes(text)) return;
      waiting.push(text);
      void read();
    },
  };
});

const told = new WeakMap<HTMLElement, string>();

function tell(element: HTMLElement, { value }: DirectiveBinding<boolean | undefined>): void {
  if (value === false) return;
  const text = element.textContent.replace(/\s+/g, ' ').trim();
  if (told.get(element) === text) return;
  told.set(element, text);
  useSaid().say(text);
}

/** Has the text of an element read out when it appears, and whenever it changes; not while it is given `false`. */
export const vSay: Directive<HTMLElement, boolean | undefined> = { mounted: tell, updated: tell };
