import type { Scene } from './scene.js';
import { ROW } from './triangles.js';

/** Points within this of a face are on it, metres: what begins there does not meet it. */
export const ON_M = 1e-7;
/** Triangles reach so far beyond their sides, as a share of them: no ray slips through between two. */
const EDGE = 1e-9;
const MOST_DEPTH = 128;

/** What rays meet in a scene. Each tracer has its own stack, so that calls may overlap. */
export class Tracer {
  /** of the last hit: how far it was, metres, and its face; -1 for none */
  distance = Infinity;
  face = -1;
  private readonly stack = new Int32Array(MOST_DEPTH);
  private readonly nears = new Float64Array(MOST_DEPTH);

  constructor(readonly scene: Scene) {}

  /**
   * The first face on a ray, kept in `distance` and `face`.
   * @param ox where it begins @param dx where it goes, of unit length @param most it is followed so far, metres
   * @returns whether there is one
   */
  firstHit(ox: number, oy: number, oz: number, dx: number, dy: number, dz: number, most = Infinity): boolean {
    const { triangles, faceOf, tree } = this.scene;
    const { boxes, children, counts } = tree;
    const { stack, nears } = this;
    const [ix, iy, iz] = [inverse(dx), inverse(dy), inverse(dz)];
    let best = most;
    let face = -1;
    let depth = 0;
    let node = 0;
    for (;;) {
      if (node < 0) {
        const from = -1 - node;
        const to = from + counts[from]!;
        for (let t = from; t < to; t++) {
          const at = ROW * t;
          const [nx, ny, nz] = [triangles[at]!, triangles[at + 1]!, triangles[at + 2]!];
          const along = dx * nx + dy * ny + dz * nz;
          const off = triangles[at + 3]! - (ox * nx + oy * ny + oz * nz);
          const distance = off / along;
          if (!(distance > ON_M && distance < best)) continue;
          const [px, py, pz] = [ox + distance * dx, oy + distance * dy, oz + distance * dz];
          const u =
            px * triangles[at + 4]! + py * triangles[at + 5]! + pz * triangles[at + 6]! + triangles[at + 7]!;
          if (u < -EDGE) continue;
          const v =
            px * triangles[at + 8]! +
            py * triangles[at + 9]! +
            pz * triangles[at + 10]! +
            triangles[at + 11]!;
          if (v < -EDGE || u + v > 1 + EDGE) continue;
          best = distance;
          face = faceOf[t]!;
        }
      } else {
        const at = 12 * node;
        const near = enter(boxes, at, ox, oy, oz, ix, iy, iz, best);
        const far = enter(boxes, at + 6, ox, oy, oz, ix, iy, iz, best);
        const [one, other] = [children[2 * node]!, children[2 * node + 1]!];
        if (near <= far) {
          if (far < Infinity) {
            stack[depth] = other;
            nears[depth++] = far;
          }
          if (near < Infinity) {
            node = one;
            continue;
          }
        } else {
          if (near < Infinity) {
            stack[depth] = one;
            nears[depth++] = near;
          }
          node = other;
          continue;
        }
      }
      // what lies behind what was found is left out
      do {
        if (depth === 0) {
          this.distance = best;
          this.face = face;
          return face >= 0;
        }
        node = stack[--depth]!;
      } while (nears[depth]! >= best);
    }
  }

  /** Whether nothing stands between two points; what they lie on does not. */
  isFree(ax: number, ay: number, az: number, bx: number, by: number, bz: number): boolean {
    const [x, y, z] = [bx - ax, by - ay, bz - az];
    const length = Math.sqrt(x * x + y * y + z * z);
    if (!(length > 2 * ON_M)) return true;
    return !this.firstHit(ax, ay, az, x / length, y / length, z / length, length - ON_M);
  }
}

/** Finite, so that what runs along the side of a box is no product of 0 and infinity. */
const inverse = (d: number) => (d > 1e-30 || d < -1e-30 ? 1 / d : 1e30);

/** Where a ray comes into a box; Infinity where it misses it, or comes later than `best`. */
function enter(
  boxes: Float64Array,
  at: number,
  ox: number,
  oy: number,
  oz: number,
  ix: number,
  iy: number,
  iz: number,
  best: number,
): number {
  let from = 0;
  let to = best;
  const x0 = (boxes[at]! - ox) * ix;
  const x1 = (boxes[at + 3]! - ox) * ix;
  if (x0 < x1) {
    if (x0 > from) from = x0;
    if (x1 < to) to = x1;
  } else {
    if (x1 > from) from = x1;
    if (x0 < to) to = x0;
  }
  const y0 = (boxes[at + 1]! - oy) * iy;
  const y1 = (boxes[at + 4]! - oy) * iy;
  if (y0 < y1) {
    if (y0 > from) from = y0;
    if (y1 < to) to = y1;
  } else {
    if (y1 > from) from = y1;
    if (y0 < to) to = y0;
  }
  const z0 = (boxes[at + 2]! - oz) * iz;
  const z1 = (boxes[at + 5]! - oz) * iz;
  if (z0 < z1) {
    if (z0 > from) from = z0;
    if (z1 < to) to = z1;
  } else {
    if (z1 > from) from = z1;
    if (z0 < to) to = z0;
  }
  return from <= to * (1 + 1e-12) ? from : Infinity;
}
