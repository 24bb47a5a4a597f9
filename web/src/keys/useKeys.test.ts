// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { defineComponent } from 'vue';
import { afterEach, describe, expect, it } from 'vitest';

import { useEscape, useEscapeFromFields, useKeys, useKeysWork } from './useKeys';

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
