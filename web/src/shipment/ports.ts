// What the state machine works with in this browser.
import { v7 as newId } from 'uuid';

import type { LengthUnit } from '@/api/types';

import type { Ports } from './driver';
import { keeping } from './kept';
import { overHttp } from './transport';

const WINDOW = 'hummock.window';

/** A name of this window that outlives a reload. */
function windowName(): string {
  try {
    const known = sessionStorage.getItem(WINDOW) ?? newId();
    sessionStorage.setItem(WINDOW, known);
    return known;
  } catch {
    return 'alone';
  }
}

/** The browser tells each window what others did. */
function removals(removed: (key: string) => void): () => void {
  const hear = ({ key, newValue }: StorageEvent) => {
    if (key !== null && newValue === null) removed(key);
  };
  window.addEventListener('storage', hear);
  return () => window.removeEventListener('storage', hear);
}

export function portsOf(unit: () => LengthUnit): Ports {
  return {
    transport: overHttp(unit),
    clock: {
      after(ms, call) {
        const alarm = setTimeout(call, ms);
        return () => clearTimeout(alarm);
      },
    },
    storage: keeping(localStorage, windowName(), removals),
    stamp: () => ({ edit: newId(), unit: unit() }),
  };
}
