import { dot, type Point } from '../geometry/index.js';
import { seededRandom, seedFrom } from '../signal/index.js';
import type { Tracer } from './firstHit.js';
import { triangulated, type Triangle } from './triangles.js';
import { isWithinFace } from './withinFace.js';

/** Two faces that lie on each other in part. */
export interface Overlap {
  face: number;
  other: number;
  /** of the area of `face`, as far as its points tell */
  share: number;
  /** one of the points */
  at: Point;
}

/** Faces nearer to each other than this lie on each other, metres. */
const TOGETHER_M = 5e-4;
/** So many points of each face are asked: what covers a tenth of it is missed once in thirty. */
const POINTS = 32;

interface Flat {
  corners: readonly Point[];
  /** of unit length */
  n: Point;
  /** n . p of its points */
  d: number;
}

/**
 * Faces that another one lies on: looked for at points all over each of them, by a ray from just ahead of the face to just behind it.
 * @param tracer of these faces, in their order
 * @returns each pair once, told by the face of which more is covered
 */
export function overlapsAmong(tracer: Tracer, faces: readonly Flat[]): Overlap[] {
  const points = faces.map(({ corners, n }, face) => {
    const random = seededRandom(seedFrom(face, 'overlaps'));
    const triangles = triangulated(corners, n);
    return Array.from({ length: POINTS }, () => pointWithin(triangles, random));
  });
  // of two faces at the very same place a ray may meet only one: so the pairs first, and then how much each covers of the other
  const pairs = new Map<string, [number, number]>();
  faces.forEach(({ n }, face) => {
    for (const p of points[face]!)
      for (const other of facesAt(tracer, p, n))
        if (other !== face) pairs.set([face, other].sort((a, b) => a - b).join(' '), [face, other]);
  });
  return [...pairs.values()].map(([a, b]) => {
    const [first, second] = [coveredOf(points[a]!, faces[b]!, a, b), coveredOf(points[b]!, faces[a]!, b, a)];
    return first.share >= second.share ? first : second;
  });
}

function coveredOf(points: readonly Point[], by: Flat, face: number, other: number): Overlap {
  const covered = points.filter(
    (p) => Math.abs(dot(by.n, p) - by.d) <= TOGETHER_M && isWithinFace(by.corners, by.n, p),
  );
  return { face, other, share: covered.length / points.length, at: covered[0] ?? points[0]! };
}

/** Every face that a point lies on. */
function facesAt(tracer: Tracer, p: Point, n: Point): Set<number> {
  const met = new Set<number>();
  let gone = 0;
  while (gone < 2 * TOGETHER_M) {
    const from = gone - TOGETHER_M;
    const [x, y, z] = [p.x + from * n.x, p.y + from * n.y, p.z + from * n.z];
    if (!tracer.firstHit(x, y, z, n.x, n.y, n.z, 2 * TOGETHER_M - gone)) break;
    met.add(tracer.face);
    gone += tracer.distance + 1e-7;
  }
  return met;
}

type Uniform = ReturnType<typeof seededRandom>;

/** A point anywhere on some triangles, but off their sides, where other faces may begin. */
function pointWithin(triangles: readonly Triangle[], random: Uniform): Point {
  const areas = triangles.map(areaOf);
  let left = random.uniform() * areas.reduce((sum, a) => sum + a, 0);
  let t = 0;
  while (t < areas.length - 1 && left > areas[t]!) left -= areas[t++]!;
  const [a, b, c] = triangles[t]!;
  // uniform over a triangle, drawn in by a thousandth towards its middle
  const root = Math.sqrt(random.uniform());
  const side = random.uniform();
  const [u, v, w] = [1 - root, root * (1 - side), root * side].map((s) => 0.999 * s + 0.001 / 3) as [
    number,
    number,
    number,
  ];
  return {
    x: u * a.x + v * b.x + w * c.x,
    y: u * a.y + v * b.y + w * c.y,
    z: u * a.z + v * b.z + w * c.z,
  };
}

function areaOf([a, b, c]: Triangle): number {
  const [ux, uy, uz] = [b.x - a.x, b.y - a.y, b.z - a.z];
  const [vx, vy, vz] = [c.x - a.x, c.y - a.y, c.z - a.z];
  return Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx) / 2;
}
