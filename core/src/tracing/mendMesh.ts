import { cross, distanceBetween, dot, lengthOf, minus, type Point } from '../geometry/index.js';
import { needWhole } from '../limits/index.js';
import { sceneOf } from './scene.js';
import { Tracer } from './firstHit.js';
import { planeThrough } from './triangles.js';

/** Faces of one name as somebody else drew them: three corners each, nine numbers a face, metres. */
export interface MeshSurface {
  name: string;
  triangles: Float64Array;
}

/** A flat face of a mesh. */
export interface MendedFace {
  /** number of its surface */
  surface: number;
  corners: Point[];
}

/** A mesh as it can be traced, and what was done to it. */
export interface MendedMesh {
  faces: MendedFace[];
  /** cubic metres within it, by upright rays */
  volume: number;
  mended: {
    /** corners that lay as good as on another one */
    joined: number;
    /** faces that were there twice, and those without an area */
    doubled: number;
    tiny: number;
    /** flat holes that were closed, square metres of each */
    filled: number[];
  };
}

/** Corners nearer than this are one, metres. */
const SAME_M = 1e-3;
/** Faces smaller than this are none, square metres. */
const TINY_M2 = 1e-6;
/** A hole is closed where its rim lies in one plane to within so much, metres, and it is no larger than this share of the whole. */
const HOLE = { flatM: 0.02, leastM2: 1e-3, share: 0.05 };
/** Faces in one plane: cosine of their normals, and metres beside each other. */
const ONE_PLANE = { cosine: 1 - 1e-6, besideM: 1e-4 };
/** Upright rays along each side. */
const COLUMNS = 60;
const MOST_TRIANGLES = 100_000;

type Corners = readonly number[];

/**
 * Makes a mesh fit to be traced, as far as that is safe: joins corners, leaves out faces that are doubled or nothing, closes flat holes, and
 * puts triangles in one plane together in pairs.
 * @throws RangeError for no face, or more than 100,000
 */
export function mendMesh(surfaces: readonly MeshSurface[]): MendedMesh {
  const all = surfaces.reduce((sum, s) => sum + Math.floor(s.triangles.length / 9), 0);
  needWhole('mendMesh', 'number of faces', all, 1, MOST_TRIANGLES);
  const weld = new Weld();
  const triangles: { surface: number; at: Corners }[] = [];
  const seen = new Set<string>();
  const mended: MendedMesh['mended'] = { joined: 0, doubled: 0, tiny: 0, filled: [] };
  surfaces.forEach(({ triangles: numbers }, surface) => {
    for (let i = 0; i + 8 < numbers.length; i += 9) {
      const at = [0, 3, 6].map((k) =>
        weld.indexOf({ x: numbers[i + k]!, y: numbers[i + k + 1]!, z: numbers[i + k + 2]! }),
      );
      const key = [...at].sort((a, b) => a - b).join(' ');
      const area = areaOf(at.map((c) => weld.points[c]!));
      if (!(area > TINY_M2)) mended.tiny++;
      else if (seen.has(key)) mended.doubled++;
      else triangles.push({ surface, at });
      seen.add(key);
    }
  });
  mended.joined = weld.joined;
  const total = triangles.reduce((sum, t) => sum + areaOf(t.at.map((c) => weld.points[c]!)), 0);
  const faces = inPairs(triangles, weld.points).map(({ surface, at }) => ({
    surface,
    corners: at.map((c) => weld.points[c]!),
  }));
  for (const hole of holesOf(triangles, weld.points)) {
    if (hole.area > HOLE.share * total) continue;
    faces.push({ surface: hole.surface, corners: hole.corners });
    mended.filled.push(hole.area);
  }
  return { faces, volume: volumeWithin(faces), mended };
}

/** Points in which those nearer than a millimetre are one. */
class Weld {
  readonly points: Point[] = [];
  /** that lay beside another one, but not on it */
  joined = 0;
  private readonly cells = new Map<string, number[]>();

  indexOf(p: Point): number {
    const cell = [p.x, p.y, p.z].map((v) => Math.floor(v / SAME_M));
    for (let i = 0; i < 27; i++) {
      const key = [
        cell[0]! + (i % 3) - 1,
        cell[1]! + (Math.floor(i / 3) % 3) - 1,
        cell[2]! + Math.floor(i / 9) - 1,
      ].join();
      for (const at of this.cells.get(key) ?? []) {
        const apart = distanceBetween(this.points[at]!, p);
        if (apart >= SAME_M) continue;
        if (apart > 0) this.joined++;
        return at;
      }
    }
    const at = this.points.push(p) - 1;
    const key = cell.join();
    const own = this.cells.get(key);
    if (own) own.push(at);
    else this.cells.set(key, [at]);
    return at;
  }
}

const areaOf = (corners: readonly Point[]): number => planeThrough(corners).area;
const edgeKey = (a: number, b: number) => (a < b ? `${a} ${b}` : `${b} ${a}`);
const sides = (at: Corners) => at.map((a, i): [number, number] => [a, at[(i + 1) % at.length]!]);

/** Triangles of a surface that share a side and lie in one plane, two and two, where that makes a convex face. */
function inPairs(
  triangles: readonly { surface: number; at: Corners }[],
  points: readonly Point[],
): { surface: number; at: Corners }[] {
  const byEdge = new Map<string, number[]>();
  triangles.forEach(({ at }, t) => {
    for (const [a, b] of sides(at)) {
      const key = edgeKey(a, b);
      byEdge.set(key, [...(byEdge.get(key) ?? []), t]);
    }
  });
  const planes = triangles.map(({ at }) => planeThrough(at.map((c) => points[c]!)));
  const taken = new Uint8Array(triangles.length);
  const out: { surface: number; at: Corners }[] = [];
  triangles.forEach(({ surface, at }, t) => {
    if (taken[t]) return;
    taken[t] = 1;
    for (const [i, [a, b]] of sides(at).entries()) {
      const other = (byEdge.get(edgeKey(a, b)) ?? []).find(
        (o) => !taken[o] && triangles[o]!.surface === surface,
      );
      if (other === undefined) continue;
      const far = triangles[other]!.at.find((c) => c !== a && c !== b)!;
      const [p, q] = [planes[t]!, planes[other]!];
      if (Math.abs(dot(p.n, q.n)) < ONE_PLANE.cosine) continue;
      if (Math.abs(dot(p.n, points[far]!) - p.d) > ONE_PLANE.besideM) continue;
      const quad = [...at.slice(0, i + 1), far, ...at.slice(i + 1)];
      if (
        !isConvex(
          quad.map((c) => points[c]!),
          p.n,
        )
      )
        continue;
      taken[other] = 1;
      out.push({ surface, at: quad });
      return;
    }
    out.push({ surface, at });
  });
  return out;
}

function isConvex(corners: readonly Point[], n: Point): boolean {
  const turns = corners.map((b, i) => {
    const a = corners[(i + corners.length - 1) % corners.length]!;
    const c = corners[(i + 1) % corners.length]!;
    return dot(cross(minus(b, a), minus(c, b)), n);
  });
  return turns.every((t) => t > 0) || turns.every((t) => t < 0);
}

/** Rims that go round once and lie in a plane. */
function holesOf(triangles: readonly { surface: number; at: Corners }[], points: readonly Point[]) {
  const uses = new Map<string, { ends: [number, number]; surface: number; count: number }>();
  for (const { at, surface } of triangles)
    for (const ends of sides(at)) {
      const key = edgeKey(...ends);
      const known = uses.get(key);
      if (known) known.count++;
      else uses.set(key, { ends, surface, count: 1 });
    }
  const rims = [...uses.values()].filter((e) => e.count === 1);
  const beside = new Map<number, typeof rims>();
  for (const rim of rims) for (const end of rim.ends) beside.set(end, [...(beside.get(end) ?? []), rim]);
  const left = new Set(rims);
  const holes: { surface: number; corners: Point[]; area: number }[] = [];
  for (const first of rims) {
    if (!left.has(first)) continue;
    const [start] = first.ends;
    const loop = [start];
    const along = [first];
    left.delete(first);
    let at = first.ends[1];
    while (at !== start) {
      const next = beside.get(at)!.filter((r) => left.has(r));
      // where rims meet nobody knows which way round the hole goes
      if (next.length !== 1) break;
      loop.push(at);
      left.delete(next[0]!);
      along.push(next[0]!);
      at = next[0]!.ends[0] === at ? next[0]!.ends[1] : next[0]!.ends[0];
    }
    if (at !== start || loop.length < 3) continue;
    const corners = loop.map((c) => points[c]!);
    const plane = planeThrough(corners);
    const isFlat = corners.every((c) => Math.abs(dot(plane.n, c) - plane.d) <= HOLE.flatM);
    if (!isFlat || plane.area < HOLE.leastM2) continue;
    const longest = along.reduce((a, b) => (lengthIn(b.ends, points) > lengthIn(a.ends, points) ? b : a));
    holes.push({ surface: longest.surface, corners, area: plane.area });
  }
  return holes;
}

const lengthIn = ([a, b]: readonly [number, number], points: readonly Point[]) =>
  lengthOf(minus(points[a]!, points[b]!));

/** Cubic metres between where upright rays go in and where they come out. */
function volumeWithin(faces: readonly MendedFace[]): number {
  const none = {
    absorption: Array.from({ length: 8 }, () => 0),
    scattering: Array.from({ length: 8 }, () => 0),
  };
  const scene = sceneOf(faces.map(({ corners }) => ({ corners, ...none })));
  const tracer = new Tracer(scene);
  const { least, most } = scene;
  const [dx, dy] = [(most.x - least.x) / COLUMNS, (most.y - least.y) / COLUMNS];
  let metres = 0;
  for (let i = 0; i < COLUMNS; i++)
    for (let j = 0; j < COLUMNS; j++) {
      // off the middles by a little, so that few rays run along an edge
      const [x, y] = [least.x + (i + 0.4931) * dx, least.y + (j + 0.5087) * dy];
      let z = least.z - 1;
      const hits: number[] = [];
      while (tracer.firstHit(x, y, z, 0, 0, 1) && hits.length < 64) {
        z += tracer.distance + 1e-6;
        hits.push(z);
      }
      for (let k = 0; k + 1 < hits.length; k += 2) metres += hits[k + 1]! - hits[k]!;
    }
  return metres * dx * dy;
}
