import { cross, dot, lengthOf, minus, type Point } from '../geometry/index.js';
import type { DrawnSurface } from './model.js';

/** Faces that share their corners: corners nearer to each other than the weld are one. */
export interface Mesh {
  corners: Point[];
  /** three numbers of corners a face; faces without an area are not among them */
  faces: Uint32Array;
  /** of each face the number of its surface */
  surfaceOf: Uint32Array;
  /** faces that were left out as they have no area */
  flat: number;
}

/** Corners this near are the same, metres. */
export const WELD_M = 0.001;

/** Joins triangles at their corners. @param surfaces in metres */
export function meshOf(surfaces: readonly DrawnSurface[], weldM = WELD_M): Mesh {
  const numberOf = new Map<string, number>();
  const corners: Point[] = [];
  const faces: number[] = [];
  const surfaceOf: number[] = [];
  let flat = 0;
  const corner = (t: Float64Array, i: number): number => {
    const [x, y, z] = [t[i]!, t[i + 1]!, t[i + 2]!];
    const key = `${Math.round(x / weldM)} ${Math.round(y / weldM)} ${Math.round(z / weldM)}`;
    let number = numberOf.get(key);
    if (number === undefined) {
      number = corners.push({ x, y, z }) - 1;
      numberOf.set(key, number);
    }
    return number;
  };
  surfaces.forEach(({ triangles }, nth) => {
    for (let i = 0; i + 8 < triangles.length; i += 9) {
      const abc = [corner(triangles, i), corner(triangles, i + 3), corner(triangles, i + 6)] as const;
      const [a, b, c] = abc.map((n) => corners[n]!) as [Point, Point, Point];
      if (!(lengthOf(cross(minus(b, a), minus(c, a))) > weldM * weldM)) {
        flat++;
        continue;
      }
      faces.push(...abc);
      surfaceOf.push(nth);
    }
  });
  return { corners, faces: Uint32Array.from(faces), surfaceOf: Uint32Array.from(surfaceOf), flat };
}

/** Twice the area of a face, as a vector along its normal. */
export function faceVector({ corners, faces }: Mesh, face: number): Point {
  const [a, b, c] = [0, 1, 2].map((k) => corners[faces[3 * face + k]!]!) as [Point, Point, Point];
  return cross(minus(b, a), minus(c, a));
}

/** An edge between two corners, and the faces that have it. */
export interface Edge {
  from: number;
  to: number;
  faces: number[];
}

export function edgesOf(mesh: Mesh, faces: Iterable<number> = allFaces(mesh)): Edge[] {
  const found = new Map<number, Edge>();
  const many = mesh.corners.length;
  for (const face of faces)
    for (let k = 0; k < 3; k++) {
      const from = mesh.faces[3 * face + k]!;
      const to = mesh.faces[3 * face + ((k + 1) % 3)]!;
      const key = Math.min(from, to) * many + Math.max(from, to);
      const edge = found.get(key);
      if (edge) edge.faces.push(face);
      else found.set(key, { from, to, faces: [face] });
    }
  return [...found.values()];
}

const allFaces = ({ faces }: Mesh) => Array.from({ length: faces.length / 3 }, (_, i) => i);

/** Of an edge with two faces the cosine of the angle between them; faces that lie in one plane have 1, whichever way they are turned. */
export function bend(mesh: Mesh, { faces }: Edge): number {
  const [a, b] = [faceVector(mesh, faces[0]!), faceVector(mesh, faces[1]!)];
  return Math.abs(dot(a, b)) / (lengthOf(a) * lengthOf(b));
}

/**
 * Chains of edges from corner to corner, open or closed.
 * @returns lists of corners' numbers; of a closed chain the first is not repeated
 */
export function chainsOf(
  edges: readonly Pick<Edge, 'from' | 'to'>[],
): { corners: number[]; isClosed: boolean }[] {
  const at = new Map<number, number[]>();
  edges.forEach((e, i) => {
    for (const end of [e.from, e.to]) {
      const list = at.get(end);
      if (list) list.push(i);
      else at.set(end, [i]);
    }
  });
  const used = new Uint8Array(edges.length);
  const follow = (start: number, first: number) => {
    const corners = [start];
    let now = start;
    for (let e: number | undefined = first; e !== undefined;) {
      used[e] = 1;
      now = edges[e]!.from === now ? edges[e]!.to : edges[e]!.from;
      if (now === start) return { corners, isClosed: true };
      corners.push(now);
      // where more than two meet, a chain ends: which way it goes on is not told
      const next: number[] = at.get(now)!;
      e = next.length === 2 ? next.find((i) => !used[i]) : undefined;
    }
    return { corners, isClosed: false };
  };
  const chains: { corners: number[]; isClosed: boolean }[] = [];
  const ends = [...at].filter(([, list]) => list.length !== 2);
  for (const [corner, list] of ends) for (const e of list) if (!used[e]) chains.push(follow(corner, e));
  edges.forEach((e, i) => {
    if (!used[i]) chains.push(follow(e.from, i));
  });
  return chains;
}
