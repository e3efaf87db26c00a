import type { Point } from '../geometry/index.js';
import { needWithin } from '../limits/index.js';
import { Tracer, type Scene } from '../tracing/index.js';

/** A room in cells: those inside it, and what bounds them. Cells lie along x, then y, then z, each in rows of the next. */
export interface RoomGrid {
  /** cells along each axis, a layer outside on every side included */
  counts: readonly [x: number, y: number, z: number];
  /** metres of a cell along each axis */
  steps: readonly [x: number, y: number, z: number];
  /** where the middle of the first cell lies */
  origin: Point;
  /** 1 inside */
  inside: Uint8Array;
  /** cells inside with something beside them that is not: index of the cell, and which face stands on each of its six sides, -1 for none */
  edges: { cell: Int32Array; faces: Int32Array };
  /** of each face: its area against that of the cells' sides that stand for it */
  share: Float64Array;
  cells: number;
}

/** Neighbours of a cell: x - 1, x + 1, y - 1, y + 1, z - 1, z + 1. */
export const SIDES = 6;
/** Larger grids would take minutes. */
const MOST_CELLS = 3e6;
/** Rays start a little off the middles, so that none runs along an edge of the room. */
const OFF_M = [1.7e-5, 2.3e-5, 1.1e-5] as const;

/** Why a room cannot be laid out in cells. */
export type NoGrid = 'not closed' | 'too large' | 'outside';

/**
 * Cells of a room, found from one point inside on: from cell to cell as far as no face stands between their middles. Cells fit the sides
 * of the room where it is a box.
 * @param within a point inside @param stepM about so long is a cell
 * @returns why there is none where it leaks, has too many cells, or the point is not within
 */
export function roomGrid(scene: Scene, within: Point, stepM: number): RoomGrid | NoGrid {
  needWithin('roomGrid', 'step in m', stepM, 1e-3, 100);
  const { least, most } = scene;
  const sizes = [most.x - least.x, most.y - least.y, most.z - least.z];
  const inner = sizes.map((size) => Math.max(1, Math.round(size / stepM)));
  const steps = sizes.map((size, d) => size / inner[d]!) as [number, number, number];
  const counts = inner.map((n) => n + 2) as [number, number, number];
  const all = counts[0] * counts[1] * counts[2];
  if (all > MOST_CELLS) return 'too large';
  const origin = { x: least.x - steps[0] / 2, y: least.y - steps[1] / 2, z: least.z - steps[2] / 2 };
  const strides = [counts[1] * counts[2], counts[2], 1] as const;
  const at = (cell: number): [number, number, number] => {
    const i = Math.floor(cell / strides[0]);
    const j = Math.floor((cell - i * strides[0]) / strides[1]);
    return [i, j, cell - i * strides[0] - j * strides[1]];
  };
  const start = cellAt({ counts, steps, origin }, within);
  if (start === null) return 'outside';
  const inside = new Uint8Array(all);
  const tracer = new Tracer(scene);
  const waiting = [start];
  inside[start] = 1;
  const edgeCells: number[] = [];
  const edgeFaces: number[] = [];
  const met = new Int32Array(SIDES);
  let cells = 0;
  for (let cell = waiting.pop(); cell !== undefined; cell = waiting.pop()) {
    cells++;
    const place = at(cell);
    if (place.some((n, d) => n === 0 || n === counts[d]! - 1)) return 'not closed';
    const [x, y, z] = place.map((n, d) => [origin.x, origin.y, origin.z][d]! + n * steps[d]! + OFF_M[d]!);
    let bounded = false;
    for (let side = 0; side < SIDES; side++) {
      const d = side >> 1;
      const way = side % 2 === 0 ? -1 : 1;
      const hit = tracer.firstHit(
        x!,
        y!,
        z!,
        d === 0 ? way : 0,
        d === 1 ? way : 0,
        d === 2 ? way : 0,
        steps[d]!,
      );
      met[side] = hit ? tracer.face : -1;
      if (hit) {
        bounded = true;
        continue;
      }
      const next = cell + way * strides[d]!;
      if (inside[next]) continue;
      inside[next] = 1;
      waiting.push(next);
    }
    if (!bounded) continue;
    edgeCells.push(cell);
    edgeFaces.push(...met);
  }
  return {
    counts,
    steps,
    origin,
    inside,
    edges: { cell: Int32Array.from(edgeCells), faces: Int32Array.from(edgeFaces) },
    share: sharesOf(scene, steps, edgeFaces),
    cells,
  };
}

/** A slanted face stands on more of the cells' sides than it has area: each swallows as much less. */
function sharesOf(scene: Scene, steps: readonly number[], edgeFaces: readonly number[]): Float64Array {
  const areas = [steps[1]! * steps[2]!, steps[0]! * steps[2]!, steps[0]! * steps[1]!];
  const stairs = new Float64Array(scene.areas.length);
  edgeFaces.forEach((face, i) => {
    if (face >= 0) stairs[face] = stairs[face]! + areas[(i % SIDES) >> 1]!;
  });
  return scene.areas.map((area, f) => (stairs[f]! > 0 ? Math.min(1, area / stairs[f]!) : 1));
}

/** The cell that a point lies in; null beyond the grid. */
export function cellAt(
  { counts, steps, origin }: Pick<RoomGrid, 'counts' | 'steps' | 'origin'>,
  { x, y, z }: Point,
): number | null {
  const place = [(x - origin.x) / steps[0], (y - origin.y) / steps[1], (z - origin.z) / steps[2]].map(
    Math.round,
  );
  if (place.some((n, d) => !(n >= 0 && n < counts[d]!))) return null;
  return (place[0]! * counts[1] + place[1]!) * counts[2] + place[2]!;
}
