// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { defineComponent } from 'vue';
import { afterEach, describe, expect, it } from 'vitest';

import { useEscape, useEscapeFromFields, useKeys, useKeysWork, usePedal } from './useKeys';

let struck = 0;
const Listening = defineComponent(() => {
  useKeys({ n: () => (struck += 1) });
  return () => null;
});

function strike(key: string, init: KeyboardEventInit = {}, target: EventTarget = document.body): void {
  target.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, ...init }));
}

afterEach(() => {
  struck = 0;
  useKeysWork().value = true;
  document.body.innerHTML = '';
});

describe('a single letter', () => {
  it('acts while the component is there, and not after', () => {
    const mounted = mount(Listening);
    strike('n');
    strike('m');
    expect(struck).toBe(1);
    mounted.unmount();
    strike('n');
    expect(struck).toBe(1);
  });

  it('rests while something is typed, and beside a key that is held', () => {
    const mounted = mount(Listening);
    document.body.innerHTML = '<input id="text" /><input id="tick" type="checkbox" /><textarea id="notes" />';
    const at = (id: string) => document.getElementById(id) as HTMLElement;
    strike('n', {}, at('text'));
    strike('n', {}, at('notes'));
    strike('n', { ctrlKey: true });
    strike('n', { metaKey: true });
    expect(struck).toBe(0);
    strike('n', {}, at('tick'));
    expect(struck).toBe(1);
    mounted.unmount();
  });

  it('leaves a field by Escape, but not one whose list is open: that closes first', () => {
    const Leaving = defineComponent(() => {
      useEscapeFromFields();
      return () => null;
    });
    const mounted = mount(Leaving);
    document.body.innerHTML = '<input id="text" /><input id="list" aria-expanded="true" />';
    for (const [id, stays] of [
      ['text', false],
      ['list', true],
    ] as const) {
      const field = document.getElementById(id) as HTMLElement;
      field.focus();
      strike('Escape', {}, field);
      expect(document.activeElement === field, id).toBe(stays);
    }
    mounted.unmount();
  });

  it('closes what is open by Escape, where keys are switched off too', () => {
    const Open = defineComponent(() => {
      useEscape(() => (struck += 1));
      return () => null;
    });
    const mounted = mount(Open);
    useKeysWork().value = false;
    strike('Escape');
    strike('n');
    expect(struck).toBe(1);
    mounted.unmount();
  });

  it('goes on by space and by a pedal; space on a button presses the button', () => {
    const went: string[] = [];
    let works = true;
    const Walking = defineComponent(() => {
      usePedal({
        works: () => works,
        own: 'button',
        on: () => went.push('on'),
        back: () => went.push('back'),
      });
      return () => null;
    });
    const mounted = mount(Walking);
    document.body.innerHTML = '<button id="other">Other</button>';
    const button = document.getElementById('other') as HTMLElement;
    strike(' ');
    strike(' ', {}, button);
    strike('PageDown', {}, button);
    strike('PageUp');
    expect(went).toEqual(['on', 'on', 'back']);
    works = false;
    strike(' ');
    expect(went).toHaveLength(3);
    mounted.unmount();
  });

  it('does nothing where keys are switched off', () => {
    const mounted = mount(Listening);
    useKeysWork().value = false;
    strike('n');
    expect(struck).toBe(0);
    useKeysWork().value = true;
    strike('n');
    expect(struck).toBe(1);
    mounted.unmount();
  });
});
