// One step in time of a room of cells in AssemblyScript, two cells at a time: core/src/waves/nativeStep.ts lays its memory out,
// `node scripts/makeNative.mjs` compiles it. Its sums run in the order of core/src/waves/plainStep.ts, to the same last bit.
//
// Memory: pressures now and one step before, then of each edge eight numbers: what its own pressure counts, what that of one step before,
// and what those of its six neighbours; then of each edge eight whole ones: where it and its neighbours lie, in bytes, and nothing; then
// from where up to where rows of cells lie that no face bounds, in bytes.

const EDGE_NUMBERS: usize = 64;
const EDGE_PLACES: usize = 32;

let edgesAt: usize = 0;
let placesAt: usize = 0;
let spansAt: usize = 0;
let endAt: usize = 0;
/** neighbours along x and y are so many bytes away */
let alongX: usize = 0;
let alongY: usize = 0;
let bySquareX: f64 = 0;
let bySquareY: f64 = 0;
let bySquareZ: f64 = 0;

export function begin(edges: usize, places: usize, spans: usize, end: usize): void {
  edgesAt = edges;
  placesAt = places;
  spansAt = spans;
  endAt = end;
}

export function beginPlain(ox: usize, oy: usize, sx: f64, sy: f64, sz: f64): void {
  alongX = ox;
  alongY = oy;
  bySquareX = sx;
  bySquareY = sy;
  bySquareZ = sz;
}

/** What comes after `now` takes the place of what was before it. */
export function step(now: usize, before: usize): void {
  const sx = bySquareX;
  const sy = bySquareY;
  const sz = bySquareZ;
  const middle = 2 - 2 * (sx + sy + sz);
  const middles = f64x2.splat(middle);
  const squaresX = f64x2.splat(sx);
  const squaresY = f64x2.splat(sy);
  const squaresZ = f64x2.splat(sz);
  const ox = alongX;
  const oy = alongY;
  for (let span = spansAt; span < endAt; span += 8) {
    let at: usize = load<u32>(span);
    const end: usize = load<u32>(span + 4);
    for (; at + 8 < end; at += 16) {
      const from = now + at;
      const to = before + at;
      let sum = f64x2.mul(middles, v128.load(from));
      sum = f64x2.add(sum, f64x2.mul(squaresX, f64x2.add(v128.load(from - ox), v128.load(from + ox))));
      sum = f64x2.add(sum, f64x2.mul(squaresY, f64x2.add(v128.load(from - oy), v128.load(from + oy))));
      sum = f64x2.add(sum, f64x2.mul(squaresZ, f64x2.add(v128.load(from - 8), v128.load(from + 8))));
      v128.store(to, f64x2.sub(sum, v128.load(to)));
    }
    if (at < end) {
      const from = now + at;
      const to = before + at;
      store<f64>(
        to,
        middle * load<f64>(from) +
          sx * (load<f64>(from - ox) + load<f64>(from + ox)) +
          sy * (load<f64>(from - oy) + load<f64>(from + oy)) +
          sz * (load<f64>(from - 8) + load<f64>(from + 8)) -
          load<f64>(to),
      );
    }
  }
  let place = placesAt;
  for (let edge = edgesAt; edge < placesAt; edge += EDGE_NUMBERS) {
    const to = before + load<u32>(place);
    store<f64>(
      to,
      load<f64>(edge) * load<f64>(now + load<u32>(place)) +
        load<f64>(edge, 16) * load<f64>(now + load<u32>(place, 4)) +
        load<f64>(edge, 24) * load<f64>(now + load<u32>(place, 8)) +
        load<f64>(edge, 32) * load<f64>(now + load<u32>(place, 12)) +
        load<f64>(edge, 40) * load<f64>(now + load<u32>(place, 16)) +
        load<f64>(edge, 48) * load<f64>(now + load<u32>(place, 20)) +
        load<f64>(edge, 56) * load<f64>(now + load<u32>(place, 24)) -
        load<f64>(edge, 8) * load<f64>(to),
    );
    place += EDGE_PLACES;
  }
}
