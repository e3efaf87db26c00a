import { distanceBetween } from '../geometry/index.js';
import { bend, chainsOf, edgesOf, meshOf, type Edge, type Mesh } from './mesh.js';
import type { Model } from './model.js';

/** What a model turned out to be, once it is in metres. */
export interface ModelReport {
  /** names of surfaces with how many faces each has, the largest first */
  surfaces: { name: string; faces: number }[];
  /** names of lines with how many each has */
  lines: { name: string; count: number }[];
  faces: number;
  /** faces without an area */
  flat: number;
  /** where edges belong to one face only: how many such places, how many edges, and how long the longest of them is round, metres */
  holes: { count: number; edges: number; longestM: number };
  /** edges that more than two faces share */
  crowded: number;
}

/** @param placed in metres, z up */
export function modelReport(placed: Pick<Model, 'surfaces' | 'lines'>): ModelReport {
  const mesh = meshOf(placed.surfaces);
  const edges = edgesOf(mesh);
  const open = edges.filter((e) => e.faces.length === 1);
  const around = chainsOf(open).map(({ corners, isClosed }) =>
    corners.reduce((sum, c, i) => {
      const next = corners[i + 1] ?? (isClosed ? corners[0] : undefined);
      return next === undefined ? sum : sum + distanceBetween(mesh.corners[c]!, mesh.corners[next]!);
    }, 0),
  );
  return {
    surfaces: tally(placed.surfaces, (s) => s.triangles.length / 9).map(([name, faces]) => ({ name, faces })),
    lines: tally(placed.lines, () => 1).map(([name, count]) => ({ name, count })),
    faces: mesh.faces.length / 3,
    flat: mesh.flat,
    holes: { count: around.length, edges: open.length, longestM: Math.max(0, ...around) },
    crowded: edges.filter((e) => e.faces.length > 2).length,
  };
}

function tally<T extends { name: string }>(
  list: readonly T[],
  count: (item: T) => number,
): [string, number][] {
  const sums = new Map<string, number>();
  for (const item of list) sums.set(item.name, (sums.get(item.name) ?? 0) + count(item));
  return [...sums].sort((a, b) => b[1] - a[1]);
}

/** Both ends of edges that belong to one face only, six numbers each; of very many the first. @param placed in metres, z up */
export function openEnds(placed: Pick<Model, 'surfaces'>): Float32Array {
  const mesh = meshOf(placed.surfaces);
  const open = edgesOf(mesh)
    .filter((e) => e.faces.length === 1)
    .slice(0, MOST_DRAWN_EDGES);
  return Float32Array.from(open.flatMap((e) => endsOf(mesh, e)));
}

const endsOf = ({ corners }: Mesh, { from, to }: Edge): number[] =>
  [from, to].flatMap((n) => [corners[n]!.x, corners[n]!.y, corners[n]!.z]);

/** Faces that meet at less are drawn as one: cosine of 20 degrees. */
const SMOOTH = Math.cos((20 * Math.PI) / 180);
/** So many lines are drawn; of more the longest. */
export const MOST_DRAWN_EDGES = 20_000;

/**
 * What of a model is drawn as lines: edges where its faces bend or end, and its own lines.
 * @param placed in metres, z up
 * @returns both ends of each, six numbers; how many there would have been
 */
export function drawnEdges(placed: Pick<Model, 'surfaces' | 'lines'>): { ends: Float32Array; of: number } {
  const mesh = meshOf(placed.surfaces);
  const all: number[][] = edgesOf(mesh)
    .filter((e) => e.faces.length !== 2 || bend(mesh, e) < SMOOTH)
    .map((e) => endsOf(mesh, e));
  for (const { points, isClosed } of placed.lines) {
    for (let i = 0; i + 5 < points.length; i += 3) all.push([...points.subarray(i, i + 6)]);
    if (isClosed && points.length >= 9) all.push([...points.subarray(-3), ...points.subarray(0, 3)]);
  }
  const long = ([x1, y1, z1, x2, y2, z2]: number[]) => Math.hypot(x2! - x1!, y2! - y1!, z2! - z1!);
  const drawn =
    all.length > MOST_DRAWN_EDGES
      ? all
          .map((e) => ({ e, m: long(e) }))
          .sort((a, b) => b.m - a.m)
          .slice(0, MOST_DRAWN_EDGES)
          .map(({ e }) => e)
      : all;
  return { ends: Float32Array.from(drawn.flat()), of: all.length };
}
