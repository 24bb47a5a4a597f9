// @vitest-environment happy-dom
import { Vector3 } from 'three';
import type { Mesh } from 'three';
import { describe, expect, it } from 'vitest';

import { foldedFolder } from '@/test/server';

import { foldScene, rowsAt } from './foldScene';

const { blanks, folding } = foldedFolder();
const [blank] = blanks;
const [folder] = folding ?? [];
if (!blank || !folder) throw new Error('the core folds a folder');
const { frames } = folder;

/** Where a corner lies by the core's own twelve numbers, multiplied out by hand. */
function placed(rows: readonly number[], [x, y, z]: readonly [number, number, number]): number[] {
  return [0, 4, 8].map((row) => {
    const [a = 0, b = 0, c = 0, by = 0] = rows.slice(row, row + 4);
    return a * x + b * y + c * z + by;
  });
}

describe('a blank in space', () => {
  it('lies in every picture where the core says, panel by panel', () => {
    const caliper = 4;
    const scene = foldScene(blank, frames, caliper);
    frames.forEach((frame, picture) => {
      scene.lay(picture);
      scene.group.children.forEach((mesh, panel) => {
        for (const { x_mm, y_mm } of blank.panels[panel]?.outline ?? []) {
          const drawn = new Vector3(x_mm, y_mm, caliper / 2).applyMatrix4(mesh.matrixWorld).toArray();
          const wanted = placed(frame[panel] ?? [], [x_mm, y_mm, caliper / 2]);
          drawn.forEach((at, axis) => {
            expect(at).toBeCloseTo(wanted[axis] ?? NaN, 9);
          });
        }
      });
    });
    scene.dispose();
  });

  it('is as thick as its board, half to either side of the plane that is folded', () => {
    const scene = foldScene(blank, frames, 6);
    for (const mesh of scene.group.children) {
      const { geometry } = mesh as Mesh;
      geometry.computeBoundingBox();
      expect([geometry.boundingBox?.min.z, geometry.boundingBox?.max.z]).toEqual([-3, 3]);
    }
    expect(scene.group.children.map(({ name }) => name)).toEqual(blank.panels.map(({ name }) => name));
    scene.dispose();
  });

  it('passes from one picture to the next in between, and never past the first or the last', () => {
    // Half of a step between pictures 2 and 3: each number in the middle of both.
    const [one = [], other = []] = [frames[2]?.[3], frames[3]?.[3]];
    rowsAt(frames, 2.5, 3).forEach((number, at) => {
      expect(number).toBeCloseTo(((one[at] ?? 0) + (other[at] ?? 0)) / 2, 9);
    });
    expect(rowsAt(frames, -1, 1)).toEqual(frames[0]?.[1]);
    expect(rowsAt(frames, 99, 1)).toEqual(frames.at(-1)?.[1]);
  });
});
