// First hits among triangles in AssemblyScript, with four boxes at a time in single precision and triangles in double:
// core/src/tracing/nativeHits.ts lays its memory out, `node scripts/makeNative.mjs` compiles it.
//
// Memory: what waits to be looked at (8 bytes each: how near, which), a scratch of 16 bytes, then nodes, then triangles.
// A node has 128 bytes: of its four children least x, y, z and most x, y, z (each four numbers), then what they are: a node,
// or ~(16 * first + count) for the triangles of a leaf. A triangle has twelve numbers, as `triangleRow` makes them.

const SCRATCH: usize = 4080;
const MOST: usize = 48;

let nodes: usize = 0;
let triangles: usize = 0;
/** as in firstHit.ts: nearer than this nothing is met; so far beyond its sides a triangle reaches */
let onM: f64 = 0;
let edge: f64 = 0;
let distance: f64 = 0;

export function begin(nodesAt: usize, trianglesAt: usize, on: f64, beyond: f64): void {
  nodes = nodesAt;
  triangles = trianglesAt;
  onM = on;
  edge = beyond;
}

/** How far the last hit was. */
export function distanceOfHit(): f64 {
  return distance;
}

/** Which triangle is met first; -1 for none. @param any the first that is found will do, nearest or not */
export function firstHit(ox: f64, oy: f64, oz: f64, dx: f64, dy: f64, dz: f64, most: f64, any: i32): i32 {
  const beside = -edge;
  const beyond = 1 + edge;
  // finite, so that what runs along the side of a box is no product of 0 and infinity
  const ix: f32 = dx > 1e-30 || dx < -1e-30 ? <f32>(1 / dx) : 1e30;
  const iy: f32 = dy > 1e-30 || dy < -1e-30 ? <f32>(1 / dy) : 1e30;
  const iz: f32 = dz > 1e-30 || dz < -1e-30 ? <f32>(1 / dz) : 1e30;
  const byX = f32x4.splat(ix);
  const byY = f32x4.splat(iy);
  const byZ = f32x4.splat(iz);
  const fromX = f32x4.splat(<f32>ox);
  const fromY = f32x4.splat(<f32>oy);
  const fromZ = f32x4.splat(<f32>oz);
  // the sides that a ray of this direction comes to first, and those that it leaves by
  const inX: usize = ix < 0 ? MOST : 0;
  const inY: usize = iy < 0 ? MOST : 0;
  const inZ: usize = iz < 0 ? MOST : 0;
  const outX = MOST - inX;
  const outY = MOST - inY;
  const outZ = MOST - inZ;
  const zero = f32x4.splat(0);
  let best = most;
  let nearest = f32x4.splat(<f32>best);
  let hit: i32 = -1;
  let depth: usize = 0;
  let node: i32 = 0;
  while (true) {
    if (node < 0) {
      const leaf = ~node;
      const first = leaf >> 4;
      const count = leaf & 15;
      let at = triangles + <usize>first * 96;
      for (let k = 0; k < count; k++, at += 96) {
        const nx = load<f64>(at);
        const ny = load<f64>(at, 8);
        const nz = load<f64>(at, 16);
        const along = dx * nx + dy * ny + dz * nz;
        const off = load<f64>(at, 24) - (ox * nx + oy * ny + oz * nz);
        const far = off / along;
        if (!(far > onM && far < best)) continue;
        const px = ox + far * dx;
        const py = oy + far * dy;
        const pz = oz + far * dz;
        const u =
          px * load<f64>(at, 32) + py * load<f64>(at, 40) + pz * load<f64>(at, 48) + load<f64>(at, 56);
        if (u < beside) continue;
        const v =
          px * load<f64>(at, 64) + py * load<f64>(at, 72) + pz * load<f64>(at, 80) + load<f64>(at, 88);
        if (v < beside || u + v > beyond) continue;
        best = far;
        hit = first + k;
        if (any) {
          distance = best;
          return hit;
        }
        nearest = f32x4.splat(<f32>best);
      }
    } else {
      const at = nodes + ((<usize>node) << 7);
      let near = f32x4.mul(f32x4.sub(v128.load(at + inX), fromX), byX);
      let far = f32x4.mul(f32x4.sub(v128.load(at + outX), fromX), byX);
      near = f32x4.pmax(f32x4.mul(f32x4.sub(v128.load(at + inY, 16), fromY), byY), near);
      far = f32x4.pmin(f32x4.mul(f32x4.sub(v128.load(at + outY, 16), fromY), byY), far);
      near = f32x4.pmax(f32x4.mul(f32x4.sub(v128.load(at + inZ, 32), fromZ), byZ), near);
      far = f32x4.pmin(f32x4.mul(f32x4.sub(v128.load(at + outZ, 32), fromZ), byZ), far);
      near = f32x4.pmax(zero, near);
      let met = i32x4.bitmask(v128.and(f32x4.le(near, far), f32x4.lt(near, nearest)));
      if (met !== 0) {
        const children = at + 96;
        if ((met & (met - 1)) === 0) {
          node = load<i32>(children + ((<usize>ctz(met)) << 2));
          continue;
        }
        // the nearest on top: each goes in behind those that are nearer
        v128.store(SCRATCH, near);
        const bottom = depth;
        while (met !== 0) {
          const lane = (<usize>ctz(met)) << 2;
          met &= met - 1;
          const its = load<f32>(SCRATCH + lane);
          let place = depth;
          while (place > bottom && load<f32>(place - 8) < its) {
            store<u64>(place, load<u64>(place - 8));
            place -= 8;
          }
          store<f32>(place, its);
          store<i32>(place, load<i32>(children + lane), 4);
          depth += 8;
        }
        depth -= 8;
        node = load<i32>(depth, 4);
        continue;
      }
    }
    // what lies behind what was found is left out
    while (true) {
      if (depth === 0) {
        distance = best;
        return hit;
      }
      depth -= 8;
      if (<f64>load<f32>(depth) < best) break;
    }
    node = load<i32>(depth, 4);
  }
}
