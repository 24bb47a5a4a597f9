import { describe, expect, it } from 'vitest';

import { needsOf } from './parts';
import { STOPS } from './shipment/stops';

const STUDIO = '/api/v1/studio';

describe('what an address needs first', () => {
  it('is the bench and its first rows, unless something is sought there', () => {
    const { parts, reads } = needsOf('/', '');
    expect(parts).toHaveLength(1);
    expect(reads).toEqual([STUDIO, '/api/v1/shipments?place=bench&search=&sort=promised&without=section']);
    expect(needsOf('/', '?q=kelp').reads).toEqual([STUDIO]);
  });

  it('is what stands around a stop, the stop and the shipment', () => {
    const around = needsOf('/shipments/018f', '').parts;
    expect(around).toHaveLength(1);
    for (const { name } of STOPS) {
      const { parts, reads } = needsOf(`/shipments/018f/${name}`, '');
      expect(parts).toHaveLength(2);
      expect(parts[0]).toBe(around[0]);
      expect(reads).toEqual([STUDIO, '/api/v1/shipments/018f']);
    }
  });

  it('is no shipment where one is only begun', () => {
    const { parts, reads } = needsOf('/shipments/new', '');
    expect(parts).toEqual(needsOf('/shipments/018f/short', '').parts);
    expect(reads).toEqual([STUDIO]);
  });

  it('is the studio alone elsewhere', () => {
    expect(needsOf('/log', '')).toEqual({ parts: [], reads: [STUDIO] });
    // No stop, whatever an object has of that name.
    expect(needsOf('/shipments/018f/toString', '').parts).toHaveLength(1);
  });
});
