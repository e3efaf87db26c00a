import { distanceBetween, dot, minus, type Point } from '../geometry/index.js';
import { seededRandom, seedFrom } from '../signal/index.js';
import { Tracer } from './firstHit.js';
import { overlapsAmong } from './overlaps.js';
import { sceneOf, type Scene, type TracedFace } from './scene.js';
import { planeThrough } from './triangles.js';
import { isWithinFace } from './withinFace.js';

/** What is wrong with a model, and where. */
export type ModelFault =
  | { kind: 'warped'; face: number; byM: number; at: Point }
  | { kind: 'tiny'; face: number; area: number; at: Point }
  | { kind: 'doubled'; face: number; other: number; at: Point }
  /** share of the face that the other lies on */
  | { kind: 'overlapping'; face: number; other: number; share: number; at: Point }
  /** share of the rays from a source that get out, and where one of them got beyond all faces */
  | { kind: 'leak'; share: number; at: Point }
  | { kind: 'outside'; what: string; at: Point }
  | { kind: 'in a wall'; what: string; face: number; byM: number; at: Point };

export interface CheckedPoint {
  name: string;
  position: Point;
}

/** Corners may lie so far beside their plane, metres; smaller faces are no faces, square metres; points keep so far from walls. */
const LIMITS = { warpedM: 0.02, tinyM2: 1e-4, sameM: 1e-4, wallM: 0.02 };
/** More rays than this out of a hundred thousand that get out are a leak: fewer may have hit the seam between two faces. */
const LEAK_SHARE = 2e-5;
const RAYS = 4000;
const REFLECTIONS = 8;

/**
 * Looks for what makes a model go wrong: faces that are warped, tiny, doubled or overlapping, sources and receivers outside or in a wall, and leaks, found by
 * rays from each source that go on in all directions.
 * @returns faults, those of faces first; sources outside are not asked for leaks
 */
export function checkFaces(
  faces: readonly TracedFace[],
  sources: readonly CheckedPoint[],
  receivers: readonly CheckedPoint[],
): ModelFault[] {
  const sized = faces.map((face, i) => ({ face, i, plane: planeThrough(face.corners) }));
  const faults: ModelFault[] = [];
  for (const { face, i, plane } of sized) {
    const at = middleOf(face.corners);
    if (!(plane.area > LIMITS.tinyM2)) {
      faults.push({ kind: 'tiny', face: i, area: plane.area, at });
      continue;
    }
    const byM = Math.max(...face.corners.map((c) => Math.abs(dot(plane.n, c) - plane.d)));
    if (byM > LIMITS.warpedM) faults.push({ kind: 'warped', face: i, byM, at });
  }
  const twice = doubled(faces);
  faults.push(...twice);
  const whole = sized.filter(({ plane }) => plane.area > LIMITS.tinyM2);
  if (whole.length === 0) return faults;
  const scene = sceneOf(whole.map((w) => w.face));
  const tracer = new Tracer(scene);
  const isTold = (a: number, b: number) =>
    twice.some((t) => (t.face === a && t.other === b) || (t.face === b && t.other === a));
  for (const overlap of overlapsAmong(
    tracer,
    whole.map(({ face, plane }) => ({ corners: face.corners, n: plane.n, d: plane.d })),
  )) {
    const [face, other] = [whole[overlap.face]!.i, whole[overlap.other]!.i];
    if (!isTold(face, other)) faults.push({ kind: 'overlapping', ...overlap, face, other });
  }
  const random = seededRandom(seedFrom(1, 'check'));
  const isInside = (p: Point) => {
    // most of some directions: one alone may go through a leak, or along an edge
    let inside = 0;
    for (let k = 0; k < 9; k++) {
      const [x, y, z] = direction(random);
      if (crossings(tracer, p, x, y, z) % 2 === 1) inside++;
    }
    return inside > 4;
  };
  const leaks = { out: 0, all: 0, at: null as Point | null };
  for (const [points, isSource] of [
    [sources, true],
    [receivers, false],
  ] as const)
    for (const { name, position } of points) {
      const wall = nearestFace(whole, position);
      if (wall && wall.byM < LIMITS.wallM)
        faults.push({ kind: 'in a wall', what: name, face: wall.face, byM: wall.byM, at: position });
      else if (!isInside(position)) faults.push({ kind: 'outside', what: name, at: position });
      else if (isSource) {
        leaks.all += RAYS;
        for (let r = 0; r < RAYS; r++) {
          const out = leavesAt(tracer, scene.normals, position, random);
          if (!out) continue;
          leaks.out++;
          leaks.at ??= out;
        }
      }
    }
  if (leaks.at && leaks.out > LEAK_SHARE * leaks.all)
    faults.push({ kind: 'leak', share: leaks.out / leaks.all, at: leaks.at });
  return faults;
}

const middleOf = (corners: readonly Point[]): Point => {
  const n = corners.length || 1;
  const sum = (of: (p: Point) => number) => corners.reduce((s, c) => s + of(c), 0) / n;
  return { x: sum((c) => c.x), y: sum((c) => c.y), z: sum((c) => c.z) };
};

type Uniform = ReturnType<typeof seededRandom>;

function direction(random: Uniform): [number, number, number] {
  const z = 2 * random.uniform() - 1;
  const around = 2 * Math.PI * random.uniform();
  const wide = Math.sqrt(1 - z * z);
  return [wide * Math.cos(around), wide * Math.sin(around), z];
}

/** How many faces a ray goes through on its way out. */
function crossings(tracer: Tracer, p: Point, x: number, y: number, z: number): number {
  let count = 0;
  let [px, py, pz] = [p.x, p.y, p.z];
  while (count < 1000 && tracer.firstHit(px, py, pz, x, y, z)) {
    const far = tracer.distance + 1e-6;
    [px, py, pz] = [px + far * x, py + far * y, pz + far * z];
    count++;
  }
  return count;
}

/** Where a ray that scatters at each face gets beyond all of them; null when it does not. */
function leavesAt(tracer: Tracer, normals: Float64Array, from: Point, random: Uniform): Point | null {
  let p = from;
  let [x, y, z] = direction(random);
  for (let k = 0; k < REFLECTIONS; k++) {
    if (!tracer.firstHit(p.x, p.y, p.z, x, y, z)) return atBorder(tracer.scene, p, { x, y, z });
    const { distance, face } = tracer;
    p = { x: p.x + distance * x, y: p.y + distance * y, z: p.z + distance * z };
    const n = [normals[3 * face]!, normals[3 * face + 1]!, normals[3 * face + 2]!] as const;
    const back = x * n[0] + y * n[1] + z * n[2] > 0 ? -1 : 1;
    const [u, v, w] = direction(random);
    const side = back * (u * n[0] + v * n[1] + w * n[2]) > 0 ? 1 : -1;
    [x, y, z] = [side * u, side * v, side * w];
    // off the face, so that it is not met again
    p = { x: p.x + 1e-7 * back * n[0], y: p.y + 1e-7 * back * n[1], z: p.z + 1e-7 * back * n[2] };
  }
  return null;
}

/** Where what goes on from a point leaves the box around a scene. */
function atBorder({ least, most }: Scene, p: Point, way: Point): Point {
  const away = (['x', 'y', 'z'] as const).map((axis) =>
    way[axis] === 0 ? Infinity : ((way[axis] > 0 ? most : least)[axis] - p[axis]) / way[axis],
  );
  const by = Math.max(0, Math.min(...away));
  return { x: p.x + by * way.x, y: p.y + by * way.y, z: p.z + by * way.z };
}

/** Faces that lie on each other with all their corners. */
function doubled(faces: readonly TracedFace[]): Extract<ModelFault, { kind: 'doubled' }>[] {
  const seen = new Map<string, number>();
  const faults: ReturnType<typeof doubled> = [];
  faces.forEach(({ corners }, face) => {
    const key = corners
      .map((c) => [c.x, c.y, c.z].map((v) => Math.round(v / LIMITS.sameM)).join(','))
      .sort()
      .join(';');
    const other = seen.get(key);
    if (other === undefined) seen.set(key, face);
    else faults.push({ kind: 'doubled', face, other, at: middleOf(corners) });
  });
  return faults;
}

/** The face nearest to a point, and how far it is. */
function nearestFace(
  faces: readonly { face: TracedFace; i: number; plane: ReturnType<typeof planeThrough> }[],
  p: Point,
): { face: number; byM: number } | null {
  let best: { face: number; byM: number } | null = null;
  for (const { face, i, plane } of faces) {
    const off = dot(plane.n, p) - plane.d;
    if (best && Math.abs(off) >= best.byM) continue;
    const foot = { x: p.x - off * plane.n.x, y: p.y - off * plane.n.y, z: p.z - off * plane.n.z };
    const byM = isWithinFace(face.corners, plane.n, foot)
      ? Math.abs(off)
      : Math.min(
          ...face.corners.map((c, k) => distanceToSide(p, c, face.corners[(k + 1) % face.corners.length]!)),
        );
    if (!best || byM < best.byM) best = { face: i, byM };
  }
  return best;
}

function distanceToSide(p: Point, a: Point, b: Point): number {
  const along = minus(b, a);
  const length2 = dot(along, along);
  const t = length2 > 0 ? Math.max(0, Math.min(1, dot(minus(p, a), along) / length2)) : 0;
  return distanceBetween(p, { x: a.x + t * along.x, y: a.y + t * along.y, z: a.z + t * along.z });
}
