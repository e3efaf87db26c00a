import earcut from 'earcut';
import { cross, dot, lengthOf, minus, type Point } from '../geometry/index.js';

/** The plane of a flat face, n . p = d with n of unit length, and its area, square metres (Newell's sum). */
export function planeThrough(corners: readonly Point[]): { n: Point; d: number; area: number } {
  const sum = { x: 0, y: 0, z: 0 };
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % corners.length]!;
    sum.x += (a.y - b.y) * (a.z + b.z);
    sum.y += (a.z - b.z) * (a.x + b.x);
    sum.z += (a.x - b.x) * (a.y + b.y);
  });
  const twice = lengthOf(sum);
  const n = { x: sum.x / twice, y: sum.y / twice, z: sum.z / twice };
  return { n, d: corners.reduce((s, c) => s + dot(n, c), 0) / corners.length, area: twice / 2 };
}

export type Triangle = readonly [Point, Point, Point];

/** A flat face as triangles, seen along the axis that its normal is nearest to. */
export function triangulated(corners: readonly Point[], n: Point): Triangle[] {
  if (corners.length === 3) return [corners as unknown as Triangle];
  const [x, y, z] = [Math.abs(n.x), Math.abs(n.y), Math.abs(n.z)];
  const seen = (c: Point) => (z >= x && z >= y ? [c.x, c.y] : y >= x ? [c.x, c.z] : [c.y, c.z]);
  const indices = earcut(corners.flatMap(seen));
  return Array.from({ length: indices.length / 3 }, (_, t) => {
    const at = (k: number) => corners[indices[3 * t + k]!]!;
    return [at(0), at(1), at(2)];
  });
}

/** Numbers of one triangle in `Scene.triangles`. */
export const ROW = 12;

/**
 * A triangle as it is met: its plane, and two coordinates along its first two sides (Baldwin and Weber 2016, with the whole plane kept).
 * @returns null for one without an area
 */
export function triangleRow([a, b, c]: Triangle): number[] | null {
  const [e1, e2] = [minus(b, a), minus(c, a)];
  const n = cross(e1, e2);
  const size = dot(n, n);
  if (!(size > 0)) return null;
  const length = Math.sqrt(size);
  const scaled = (p: Point) => ({ x: p.x / size, y: p.y / size, z: p.z / size });
  const [u, v] = [scaled(cross(e2, n)), scaled(cross(n, e1))];
  return [
    ...[n.x / length, n.y / length, n.z / length, dot(n, a) / length],
    ...[u.x, u.y, u.z, -dot(u, a)],
    ...[v.x, v.y, v.z, -dot(v, a)],
  ];
}
