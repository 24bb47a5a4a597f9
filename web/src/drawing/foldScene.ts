// A blank in space: each panel as thick as its board, lying where the core says. Nothing is worked out here but what lies
// between two pictures of the core, which are so close that a straight line between them does.
import {
  BufferAttribute,
  Color,
  EdgesGeometry,
  ExtrudeGeometry,
  Group,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshLambertMaterial,
  Shape,
} from 'three';

import type { Blank } from '@/api/types';

const INSIDE = new Color('#f4ecd8');
const OUTSIDE = new Color('#c8a873');
const CUT = new Color('#a8875a');
const PEAT = '#2a2420';

/** The twelve numbers of a picture, between two pictures where it is in between. */
export function rowsAt(frames: readonly (readonly number[][])[], at: number, panel: number): number[] {
  const last = frames.length - 1;
  const place = Math.min(Math.max(at, 0), last);
  const from = Math.floor(place);
  const share = place - from;
  const one = frames[from]?.[panel] ?? [];
  const other = frames[Math.min(from + 1, last)]?.[panel] ?? one;
  return one.map((number, index) => number + ((other[index] ?? number) - number) * share);
}

/** Paints the inside of the board lighter than its outside, so that one sees which is which. */
function painted(geometry: ExtrudeGeometry): ExtrudeGeometry {
  const normals = geometry.getAttribute('normal');
  const colours = new Float32Array(normals.count * 3);
  for (let at = 0; at < normals.count; at += 1) {
    const z = normals.getZ(at);
    (z > 0.5 ? INSIDE : z < -0.5 ? OUTSIDE : CUT).toArray(colours, at * 3);
  }
  geometry.setAttribute('color', new BufferAttribute(colours, 3));
  return geometry;
}

export interface FoldScene {
  group: Group;
  /** Lays every panel as in a picture, or between two. */
  lay: (at: number) => void;
  /** Frees what the graphics card holds. */
  dispose: () => void;
}

/** Builds the panels of a blank, to be laid by the pictures of the core. */
export function foldScene(
  blank: Pick<Blank, 'panels'>,
  frames: readonly (readonly number[][])[],
  caliper: number,
): FoldScene {
  const group = new Group();
  const board = new MeshLambertMaterial({ vertexColors: true });
  const line = new LineBasicMaterial({ color: PEAT });
  const meshes = blank.panels.map(({ name, outline }) => {
    const shape = new Shape();
    outline.forEach(({ x_mm, y_mm }, at) => (at === 0 ? shape.moveTo(x_mm, y_mm) : shape.lineTo(x_mm, y_mm)));
    const geometry = new ExtrudeGeometry(shape, { depth: caliper, bevelEnabled: false });
    geometry.translate(0, 0, -caliper / 2);
    const mesh = new Mesh(painted(geometry), board);
    mesh.name = name;
    mesh.matrixAutoUpdate = false;
    mesh.add(new LineSegments(new EdgesGeometry(geometry), line));
    group.add(mesh);
    return mesh;
  });
  return {
    group,
    lay: (at) => {
      meshes.forEach((mesh, panel) => {
        // The core writes rows; a matrix of three.js is kept by columns.
        mesh.matrix.fromArray([...rowsAt(frames, at, panel), 0, 0, 0, 1]).transpose();
        mesh.matrixWorldNeedsUpdate = true;
      });
      group.updateMatrixWorld(true);
    },
    dispose: () => {
      for (const mesh of meshes) {
        mesh.geometry.dispose();
        for (const child of mesh.children) (child as LineSegments).geometry.dispose();
      }
      board.dispose();
      line.dispose();
    },
  };
}
