import { Matrix, pseudoInverse } from 'ml-matrix';
import type { BalloonData } from '../directivity/index.js';
import { dot, type Point } from '../geometry/index.js';
import { solveLinear } from '../signal/index.js';

/** Pressures at directions that lie anyhow. */
export interface Scattered {
  /** unit vectors: x along the axis, y to its left, z up */
  directions: Point[];
  frequency: Float64Array;
  /** `[frequency][direction]` */
  re: Float64Array[];
  im: Float64Array[];
}

const STEP_DEG = 5;
const ROWS = 180 / STEP_DEG + 1;
const ABOUTS = 360 / STEP_DEG;
/** A parabola over the sphere has six values; twice as many neighbours hold it. */
const NEIGHBOURS = 12;

/** The largest angle from any direction to the nearest one that is known, degrees. */
export function widestGapDeg(directions: readonly Point[]): number {
  return Math.max(...gridDirections().map((g) => angleDeg(nearest(directions, g, 1)[0]!.cosine)));
}

const angleDeg = (cosine: number) => (Math.acos(Math.max(-1, Math.min(1, cosine))) * 180) / Math.PI;

function gridDirections(): Point[] {
  return Array.from({ length: ROWS * ABOUTS }, (_, n) => {
    const a = (Math.floor(n / ABOUTS) * STEP_DEG * Math.PI) / 180;
    const b = ((n % ABOUTS) * STEP_DEG * Math.PI) / 180;
    return { x: Math.cos(a), y: Math.sin(a) * Math.cos(b), z: Math.sin(a) * Math.sin(b) };
  });
}

function nearest(directions: readonly Point[], to: Point, count: number): { i: number; cosine: number }[] {
  const best: { i: number; cosine: number }[] = [];
  directions.forEach((d, i) => {
    const cosine = dot(d, to);
    if (best.length === count && cosine <= best[count - 1]!.cosine) return;
    const at = best.findIndex((b) => b.cosine < cosine);
    best.splice(at < 0 ? best.length : at, 0, { i, cosine });
    if (best.length > count) best.pop();
  });
  return best;
}

/**
 * Balloon data on a grid of 5 degrees from directions that lie anyhow: at each of the grid a parabola over the sphere is fitted to
 * the nearest known ones by least squares, nearer ones counting more; what a place away from the acoustic centre turns of the phase is
 * taken out before and put back after.
 * @param directions at least 12
 */
export function griddedBalloon({ directions, frequency, re, im }: Scattered): BalloonData {
  const grid = gridDirections();
  const weights = grid.map((to) => weightsAt(directions, to));
  const pairs = neighbourPairs(directions);
  const layers = Array.from(frequency, (_, n) => {
    const turn = commonTurn(directions, re[n]!, im[n]!, pairs);
    const [x, y] = [new Float64Array(directions.length), new Float64Array(directions.length)];
    directions.forEach((d, i) => rotate(re[n]![i]!, im[n]![i]!, -dot(turn, d), x, y, i));
    const [outRe, outIm] = [new Float32Array(grid.length), new Float32Array(grid.length)];
    grid.forEach((to, g) => {
      let [a, b] = [0, 0];
      for (const { i, weight } of weights[g]!) {
        a += weight * x[i]!;
        b += weight * y[i]!;
      }
      rotate(a, b, dot(turn, to), outRe, outIm, g);
    });
    return { re: outRe, im: outIm };
  });
  return {
    pole: 'front',
    fromPoleDeg: Float64Array.from({ length: ROWS }, (_, i) => i * STEP_DEG),
    aboutDeg: Float64Array.from({ length: ABOUTS }, (_, j) => j * STEP_DEG),
    frequency,
    re: layers.map((l) => l.re),
    im: layers.map((l) => l.im),
    hasPhase: true,
  };
}

function rotate(
  a: number,
  b: number,
  phase: number,
  re: Float64Array | Float32Array,
  im: Float64Array | Float32Array,
  at: number,
): void {
  const [c, s] = [Math.cos(phase), Math.sin(phase)];
  re[at] = a * c - b * s;
  im[at] = a * s + b * c;
}

/** What each of the nearest directions counts for a value at one. */
function weightsAt(directions: readonly Point[], to: Point): { i: number; weight: number }[] {
  const near = nearest(directions, to, Math.min(NEIGHBOURS, directions.length));
  if (near[0]!.cosine > 1 - 1e-10) return [{ i: near[0]!.i, weight: 1 }];
  // two directions across the one that is asked for
  const side = Math.abs(to.z) < 0.9 ? { x: -to.y, y: to.x, z: 0 } : { x: 0, y: -to.z, z: to.y };
  const size = Math.hypot(side.x, side.y, side.z);
  const u = { x: side.x / size, y: side.y / size, z: side.z / size };
  const v = {
    x: to.y * u.z - to.z * u.y,
    y: to.z * u.x - to.x * u.z,
    z: to.x * u.y - to.y * u.x,
  };
  const reach = Math.acos(Math.max(-1, near.at(-1)!.cosine)) || 1;
  const rows = near.map(({ i, cosine }) => {
    const d = directions[i]!;
    const angle = Math.acos(Math.max(-1, Math.min(1, cosine)));
    // degrees along the sphere, not through it, so that a parabola means the same everywhere
    const by = angle < 1e-9 ? 1 : angle / Math.sin(angle);
    const [p, q] = [(by * dot(d, u)) / reach, (by * dot(d, v)) / reach];
    const weight = Math.exp(-3 * (angle / reach) ** 2);
    return { terms: [1, p, q, p * p, p * q, q * q], weight };
  });
  const inverse = pseudoInverse(new Matrix(rows.map((r) => r.terms.map((t) => r.weight * t))));
  return near.map(({ i }, n) => ({ i, weight: inverse.get(0, n) * rows[n]!.weight }));
}

/** Each direction with those next to it. */
function neighbourPairs(directions: readonly Point[]): [number, number][] {
  return directions.flatMap((d, i) =>
    nearest(directions, d, 4)
      .filter((n) => n.i > i && n.cosine < 1 - 1e-12)
      .map((n): [number, number] => [i, n.i]),
  );
}

/** What the phase turns on the mean from direction to direction, as a vector: radians along each axis (least squares over neighbours). */
function commonTurn(
  directions: readonly Point[],
  re: Float64Array,
  im: Float64Array,
  pairs: readonly [number, number][],
): Point {
  const rows = [0, 0, 0].map(() => [0, 0, 0]);
  const right = [0, 0, 0];
  for (const [i, j] of pairs) {
    const [a, b] = [directions[i]!, directions[j]!];
    const d = [b.x - a.x, b.y - a.y, b.z - a.z];
    const [p, q] = [re[j]! * re[i]! + im[j]! * im[i]!, im[j]! * re[i]! - re[j]! * im[i]!];
    const weight = Math.hypot(p, q);
    const turned = Math.atan2(q, p);
    for (let m = 0; m < 3; m++) {
      right[m]! += weight * d[m]! * turned;
      for (let n = 0; n < 3; n++) rows[m]![n]! += weight * d[m]! * d[n]!;
    }
  }
  const most = Math.max(rows[0]![0]!, rows[1]![1]!, rows[2]![2]!);
  if (!(most > 0)) return { x: 0, y: 0, z: 0 };
  for (let m = 0; m < 3; m++) rows[m]![m]! += 1e-9 * most;
  const [x, y, z] = solveLinear(rows, right);
  return { x: x!, y: y!, z: z! };
}
