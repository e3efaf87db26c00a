import { cross, dot, lengthOf, minus, type Point } from '../geometry/index.js';

/** Whether a point of a face's plane lies within its corners: by the angles under which it sees its sides, all around or not at all. */
export function isWithinFace(corners: readonly Point[], n: Point, p: Point): boolean {
  let turn = 0;
  corners.forEach((corner, k) => {
    const [a, b] = [minus(corner, p), minus(corners[(k + 1) % corners.length]!, p)];
    if (lengthOf(a) > 0 && lengthOf(b) > 0) turn += Math.atan2(dot(cross(a, b), n), dot(a, b));
  });
  return Math.abs(turn) > Math.PI;
}
