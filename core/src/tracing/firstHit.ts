import { EDGE, ON_M } from './meeting.js';
import { nativeHitsOf, type NativeHits } from './nativeHits.js';
import type { Scene } from './scene.js';
import { ROW } from './triangles.js';

/** Boxes reach so much further than they are: no ray slips by one that it only touches. */
const ROUNDING = 1 + 1e-12;
const MOST_DEPTH = 128;

/** What rays meet in a scene. Each tracer has its own stack, so that calls may overlap. */
export class Tracer {
  /** of the last hit: how far it was, metres, and its face; -1 for none */
  distance = Infinity;
  face = -1;
  private readonly stack = new Int32Array(MOST_DEPTH);
  private readonly nears = new Float64Array(MOST_DEPTH);

  private readonly native: NativeHits | null;

  /** @param plain without WebAssembly, also where there is one */
  constructor(
    readonly scene: Scene,
    plain = false,
  ) {
    this.native = plain ? null : nativeHitsOf(scene);
  }

  /**
   * The first face on a ray, kept in `distance` and `face`.
   * @param ox where it begins @param dx where it goes, of unit length @param most it is followed so far, metres
   * @returns whether there is one
   */
  firstHit(ox: number, oy: number, oz: number, dx: number, dy: number, dz: number, most = Infinity): boolean {
    const { native } = this;
    if (!native || !isWithin(native.reach, ox, oy, oz)) return this.plainHit(ox, oy, oz, dx, dy, dz, most);
    const triangle = native.firstHit(ox, oy, oz, dx, dy, dz, most, 0);
    this.face = triangle < 0 ? -1 : this.scene.faceOf[triangle]!;
    this.distance = triangle < 0 ? most : native.distanceOfHit();
    return triangle >= 0;
  }

  private plainHit(
    ox: number,
    oy: number,
    oz: number,
    dx: number,
    dy: number,
    dz: number,
    most: number,
  ): boolean {
    const { triangles, faceOf, tree } = this.scene;
    const { boxes, children, counts } = tree;
    const { stack, nears } = this;
    const ix = inverse(dx);
    const iy = inverse(dy);
    const iz = inverse(dz);
    // the sides of a box that a ray of this direction comes to first, and those that it leaves by
    const x0 = ix < 0 ? 3 : 0;
    const y0 = iy < 0 ? 4 : 1;
    const z0 = iz < 0 ? 5 : 2;
    const [x1, y1, z1] = [3 - x0, 5 - y0, 7 - z0];
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
          const nx = triangles[at]!;
          const ny = triangles[at + 1]!;
          const nz = triangles[at + 2]!;
          const along = dx * nx + dy * ny + dz * nz;
          const off = triangles[at + 3]! - (ox * nx + oy * ny + oz * nz);
          const distance = off / along;
          if (!(distance > ON_M && distance < best)) continue;
          const px = ox + distance * dx;
          const py = oy + distance * dy;
          const pz = oz + distance * dz;
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
        // both children in one go and without a function for each: half as many again a second as with one
        const at = 12 * node;
        let near = (boxes[at + x0]! - ox) * ix;
        let far = (boxes[at + x1]! - ox) * ix;
        let side = (boxes[at + y0]! - oy) * iy;
        if (side > near) near = side;
        side = (boxes[at + y1]! - oy) * iy;
        if (side < far) far = side;
        side = (boxes[at + z0]! - oz) * iz;
        if (side > near) near = side;
        side = (boxes[at + z1]! - oz) * iz;
        if (side < far) far = side;
        let otherNear = (boxes[at + 6 + x0]! - ox) * ix;
        let otherFar = (boxes[at + 6 + x1]! - ox) * ix;
        side = (boxes[at + 6 + y0]! - oy) * iy;
        if (side > otherNear) otherNear = side;
        side = (boxes[at + 6 + y1]! - oy) * iy;
        if (side < otherFar) otherFar = side;
        side = (boxes[at + 6 + z0]! - oz) * iz;
        if (side > otherNear) otherNear = side;
        side = (boxes[at + 6 + z1]! - oz) * iz;
        if (side < otherFar) otherFar = side;
        const meetsOne = far >= 0 && near <= far * ROUNDING && near < best;
        const meetsOther = otherFar >= 0 && otherNear <= otherFar * ROUNDING && otherNear < best;
        if (meetsOne && meetsOther) {
          const isFirst = near <= otherNear;
          stack[depth] = children[2 * node + (isFirst ? 1 : 0)]!;
          nears[depth++] = isFirst ? otherNear : near;
          node = children[2 * node + (isFirst ? 0 : 1)]!;
          continue;
        }
        if (meetsOne || meetsOther) {
          node = children[2 * node + (meetsOne ? 0 : 1)]!;
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
    const { native } = this;
    if (!native || !isWithin(native.reach, ax, ay, az))
      return !this.plainHit(ax, ay, az, x / length, y / length, z / length, length - ON_M);
    return native.firstHit(ax, ay, az, x / length, y / length, z / length, length - ON_M, 1) < 0;
  }
}

/** Finite, so that what runs along the side of a box is no product of 0 and infinity. */
const inverse = (d: number) => (d > 1e-30 || d < -1e-30 ? 1 / d : 1e30);

const isWithin = (reach: number, x: number, y: number, z: number) =>
  x <= reach && x >= -reach && y <= reach && y >= -reach && z <= reach && z >= -reach;
