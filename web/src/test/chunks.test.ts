// @vitest-environment node
import { fileURLToPath } from 'node:url';

import { expect, it } from 'vitest';

import { fileOf } from '../../chunks';
import type { Graph } from '../../chunks';

const FOLDER = fileURLToPath(new URL('../../', import.meta.url));

/** Modules by name: what each needs, what it loads when that is wanted, and how long it is. */
const MODULES: Record<string, { needs?: string[]; loads?: string[]; long?: number }> = {
  'src/main.ts': { needs: ['src/parts.ts'], loads: ['src/app.ts'] },
  'src/parts.ts': {},
  'src/app.ts': {
    needs: ['src/frame.ts'],
    loads: [
      'src/places/BenchPlace.vue',
      'src/places/LogPlace.vue',
      'src/places/StoresPlace.vue',
      'src/places/ShipmentPlace.vue',
      'src/stops/box/BoxStop.vue',
    ],
  },
  'src/frame.ts': { long: 9_000 },
  'src/places/BenchPlace.vue': { needs: ['src/rows.ts', 'src/date.ts', 'src/status.ts', 'src/long.ts'] },
  'src/places/LogPlace.vue': { needs: ['src/rows.ts', 'src/date.ts', 'src/long.ts'] },
  'src/places/StoresPlace.vue': { needs: ['src/only-here.ts'] },
  'src/places/ShipmentPlace.vue': { needs: ['src/status.ts', 'src/drawing.ts'] },
  'src/stops/box/BoxStop.vue': { needs: ['src/drawing.ts'] },
  'src/rows.ts': { long: 5_000 },
  'src/date.ts': { long: 300, needs: ['src/frame.ts'] },
  'src/long.ts': { long: 300, needs: ['src/rows.ts'] },
  'src/status.ts': { long: 5_000 },
  'src/drawing.ts': { long: 5_000 },
  'src/only-here.ts': { long: 100 },
};

const graph: Graph = {
  getModuleInfo(id) {
    const module = MODULES[id.replace(FOLDER, '')];
    const ids = (names: string[] = []) => names.map((name) => FOLDER + name);
    return module
      ? {
          code: 'x'.repeat(module.long ?? 4_000),
          importedIds: ids(module.needs),
          dynamicallyImportedIds: ids(module.loads),
        }
      : null;
  },
};

it.each([
  ['src/parts.ts', 'first'],
  ['src/frame.ts', 'program'],
  // What the bench and shipments share, and what only parts of a shipment share.
  ['src/status.ts', 'work'],
  ['src/drawing.ts', 'shipment'],
  // Shared by two places: in a file for just these, but for what is too little for one.
  ['src/rows.ts', null],
  ['src/date.ts', 'program'],
  // As little, but the program would have to load the rows too.
  ['src/long.ts', null],
  // With the only place that uses it, however little it is.
  ['src/only-here.ts', null],
])('%s goes into the file %s', (name, file) => {
  expect(fileOf(FOLDER + name, graph)).toBe(file);
});
