// What the state machine works with in this browser.
import { v7 as newId } from 'uuid';

import type { LengthUnit, Shipment } from '@/api/types';
import { recalled, remember } from '@/kept/remembered';

import type { Ports } from './driver';
import { keeping } from './kept';
import type { Part } from './looked';
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

export function portsOf(unit: () => LengthUnit, without: () => Part[] = () => [], shipment?: string): Ports {
  return {
    transport: overHttp(unit, without, shipment),
    clock: {
      after(ms, call) {
        const alarm = setTimeout(call, ms);
        return () => clearTimeout(alarm);
      },
    },
    storage: keeping(localStorage, windowName(), removals),
    seen: {
      see: (shipment) => void remember(`shipment.${shipment.id}`, shipment),
      seen: (id) => recalled<Shipment>(`shipment.${id}`),
    },
    stamp: () => ({ edit: newId(), unit: unit() }),
  };
}
