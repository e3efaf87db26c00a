import { writeTaps, type Layer, type Taps } from '../directivity/index.js';
import { distanceBetween, type Axes, type Point } from '../geometry/index.js';
import { needWithin } from '../limits/index.js';
import { airAbsorption, type Air } from '../room/index.js';

/** A plane z = c0 + cx x + cy y that reflects all of what comes down on it. */
export type Ground = [c0: number, cx: number, cy: number];

/** A box that radiates: where, how it is turned, and per frequency how much, and in which directions. */
export interface FieldSource {
  position: Point;
  axes: Axes;
  /** pressure on its axis at 1 m per frequency, whatever its unit: all filters, gains, delays and its own response in it */
  re: Float64Array;
  im: Float64Array;
  /** one for each frequency; several frequencies may share one */
  layers: Layer[];
}

export interface FieldRequest {
  sources: FieldSource[];
  /** x, y, z of each point, metres */
  points: Float64Array;
  /** Hz, as many as the sources have values */
  frequencies: Float64Array;
  /** m/s */
  speed: number;
  /** null without absorption by air */
  air: Air | null;
  /** null without a reflection from the ground */
  ground: Ground | null;
}

/** No point is nearer to a source than this for its pressure, metres: in it there would be no end to it. */
export const NEAREST_M = 0.1;
export const MOST_SOURCES = 2000;

/** What a source gives at the points: over them first, then over frequencies. */
export interface SourceField {
  /** `[frequency][point]` */
  re: Float64Array[];
  im: Float64Array[];
}

/**
 * Direct sound of one source at points: its pressure on its axis, times its radiation in the direction of the point, times
 * e^{-jkr} / r, less what air swallows (ISO 9613-1); with the ground, of its mirror image too.
 */
export function sourceField(source: FieldSource, request: Omit<FieldRequest, 'sources'>): SourceField {
  const { points, frequencies, speed, air, ground } = request;
  const count = points.length / 3;
  const re = Array.from(frequencies, () => new Float64Array(count));
  const im = Array.from(frequencies, () => new Float64Array(count));
  const swallowed = Array.from(frequencies, (f) => (air ? (airAbsorption(f, air) * Math.LN10) / 20 : 0));
  for (const seen of ground ? [source, mirrored(source, ground)] : [source]) {
    const distance = distancesTo(seen.position, points);
    const known = new Map<number, Taps>();
    frequencies.forEach((f, n) => {
      const k = (2 * Math.PI * f) / speed;
      const [a, b] = [seen.re[n]!, seen.im[n]!];
      const { re: lr, im: li, abouts } = seen.layers[n]!;
      const taps = known.get(abouts) ?? tapsTo(seen, points, distance, abouts);
      known.set(abouts, taps);
      const [outRe, outIm] = [re[n]!, im[n]!];
      for (let p = 0; p < count; p++) {
        let [x, y] = [0, 0];
        const from = 16 * p;
        for (let t = from; t < from + 16; t++) {
          const at = taps.at[t]!;
          const w = taps.weight[t]!;
          x += w * lr[at]!;
          y += w * li[at]!;
        }
        const r = distance[p]!;
        const size = Math.exp(-swallowed[n]! * r) / r;
        const turn = k * r;
        const [c, s] = [size * Math.cos(turn), -size * Math.sin(turn)];
        const [gx, gy] = [a * x - b * y, a * y + b * x];
        outRe[p]! += gx * c - gy * s;
        outIm[p]! += gx * s + gy * c;
      }
    });
  }
  return { re, im };
}

/** Metres from a source to points. */
const distancesTo = ({ x, y, z }: Point, points: Float64Array): Float64Array =>
  Float64Array.from({ length: points.length / 3 }, (_, p) =>
    Math.max(NEAREST_M, Math.hypot(points[3 * p]! - x, points[3 * p + 1]! - y, points[3 * p + 2]! - z)),
  );

/** Directions from a source to points, for layers with so many steps about the axis. */
function tapsTo(
  { position, axes }: FieldSource,
  points: Float64Array,
  distance: Float64Array,
  abouts: number,
): Taps {
  const count = distance.length;
  const taps: Taps = { at: new Int32Array(16 * count), weight: new Float32Array(16 * count) };
  const { ahead, left, up } = axes;
  for (let p = 0; p < count; p++) {
    const x = points[3 * p]! - position.x;
    const y = points[3 * p + 1]! - position.y;
    const z = points[3 * p + 2]! - position.z;
    const by = 1 / distance[p]!;
    writeTaps(
      taps,
      16 * p,
      abouts,
      by * (x * ahead.x + y * ahead.y + z * ahead.z),
      by * (x * left.x + y * left.y + z * left.z),
      by * (x * up.x + y * up.y + z * up.z),
    );
  }
  return taps;
}

/** A source as the ground shows it: below, its axes mirrored. */
export function mirrored(source: FieldSource, [c0, cx, cy]: Ground): FieldSource {
  const size = Math.hypot(cx, cy, 1);
  const n = { x: -cx / size, y: -cy / size, z: 1 / size };
  const over = (v: Point, d: number): Point => {
    const by = 2 * (v.x * n.x + v.y * n.y + v.z * n.z - d);
    return { x: v.x - by * n.x, y: v.y - by * n.y, z: v.z - by * n.z };
  };
  const { ahead, left, up } = source.axes;
  return {
    ...source,
    position: over(source.position, c0 / size),
    axes: { ahead: over(ahead, 0), left: over(left, 0), up: over(up, 0) },
  };
}

/**
 * Direct sound of all sources together.
 * @param how `coherent` adds pressures, with what waves do to each other; `power` adds powers, as of signals that have nothing to
 *   do with each other
 * @returns power per frequency and point, `[frequency][point]`, in the squared unit of the sources
 * @throws RangeError for more sources than are taken, or values that mean nothing
 */
export function fieldPower(request: FieldRequest, how: 'coherent' | 'power'): Float64Array[] {
  const { sources, points, frequencies, speed } = request;
  needWithin('fieldPower', 'number of sources', sources.length, 0, MOST_SOURCES);
  needWithin('fieldPower', 'speed of sound in m/s', speed, 100, 2000);
  if (points.length % 3 !== 0 || points.some((v) => !Number.isFinite(v)))
    throw new RangeError('fieldPower: a point is not three numbers');
  for (const f of frequencies) needWithin('fieldPower', 'frequency in Hz', f, 1, 200_000);
  const count = points.length / 3;
  const sums = Array.from(frequencies, () => ({
    re: new Float64Array(count),
    im: new Float64Array(count),
    power: new Float64Array(count),
  }));
  for (const source of sources) {
    const field = sourceField(source, request);
    sums.forEach((sum, n) => {
      const [re, im] = [field.re[n]!, field.im[n]!];
      for (let p = 0; p < count; p++) {
        if (how === 'coherent') {
          sum.re[p]! += re[p]!;
          sum.im[p]! += im[p]!;
        } else sum.power[p]! += re[p]! ** 2 + im[p]! ** 2;
      }
    });
  }
  return sums.map(({ re, im, power }) =>
    how === 'power' ? power : re.map((v, p) => v * v + im[p]! * im[p]!),
  );
}

/** Seconds after which the first of some sources is heard at a point, their delays with it. */
export const firstArrivalS = (
  sources: readonly { position: Point; delayS: number }[],
  point: Point,
  speed: number,
): number =>
  Math.min(...sources.map(({ position, delayS }) => delayS + distanceBetween(position, point) / speed));
