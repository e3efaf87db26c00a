import { shareAbout, stepsOffAxis, writeTaps, type Layer, type Taps } from '../directivity/index.js';
import { distanceBetween, type Axes, type Point } from '../geometry/index.js';
import { needFinite, needWithin } from '../limits/index.js';
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
  const field = emptyField(request.frequencies.length, request.points.length / 3);
  addSource(field, source, request);
  return field;
}

const emptyField = (frequencies: number, points: number): SourceField => ({
  re: Array.from({ length: frequencies }, () => new Float64Array(points)),
  im: Array.from({ length: frequencies }, () => new Float64Array(points)),
});

function addSource(
  { re, im }: SourceField,
  source: FieldSource,
  { points, frequencies, speed, air, ground }: Omit<FieldRequest, 'sources'>,
): void {
  for (const seen of ground ? [source, mirrored(source, ground)] : [source]) {
    const distance = distancesTo(seen.position, points);
    const directions = directionsTo(seen, points, distance);
    const known = new Map<number, Taps>();
    let held: { of: Layer; gain: PointGains } | null = null;
    frequencies.forEach((f, n) => {
      const layer = seen.layers[n]!;
      if (held?.of !== layer) {
        const taps = known.get(layer.abouts) ?? tapsOf(directions, layer.abouts);
        known.set(layer.abouts, taps);
        held = { of: layer, gain: gainsTo(layer, taps, distance, air) };
      }
      addField(re[n]!, im[n]!, held.gain, distance, f / speed, seen.re[n]!, seen.im[n]!);
    });
  }
}

/** What a source of pressure 1 on its axis at 1 m gives at points, without the turn of its phase on the way. */
interface PointGains {
  re: Float64Array;
  im: Float64Array;
}

/** By direction and distance; of air what it swallows at the frequency of the layer, which may serve a third of an octave. */
function gainsTo(layer: Layer, taps: Taps, distance: Float64Array, air: Air | null): PointGains {
  const count = distance.length;
  const re = new Float64Array(count);
  const im = new Float64Array(count);
  const { at, weight } = taps;
  const swallowed = air ? (airAbsorption(layer.frequency, air) * Math.LN10) / 20 : 0;
  for (let p = 0; p < count; p++) {
    let x = 0;
    let y = 0;
    const end = 16 * p + 16;
    for (let t = 16 * p; t < end; t++) {
      const w = weight[t]!;
      x += w * layer.re[at[t]!]!;
      y += w * layer.im[at[t]!]!;
    }
    const r = distance[p]!;
    const size = swallowed > 0 ? Math.exp(-swallowed * r) / r : 1 / r;
    re[p] = x * size;
    im[p] = y * size;
  }
  return { re, im };
}

/** Sines of a whole turn in equal steps; cosines lie a quarter further. */
const TURN_STEPS = 4096;
const SINES = Float64Array.from({ length: TURN_STEPS + TURN_STEPS / 4 }, (_, i) =>
  Math.sin((2 * Math.PI * i) / TURN_STEPS),
);

/**
 * Adds a source's pressure at one frequency: this runs for every source, point and frequency. Sine and cosine of its turn are those
 * of the nearest step, turned on by what is left in four terms of their series: 1e-14 at most beside the truth, and several times
 * as quick.
 */
function addField(
  outRe: Float64Array,
  outIm: Float64Array,
  gain: PointGains,
  distance: Float64Array,
  wavesPerMetre: number,
  a: number,
  b: number,
): void {
  const { re, im } = gain;
  for (let p = 0; p < distance.length; p++) {
    const waves = wavesPerMetre * distance[p]!;
    const steps = (waves - Math.floor(waves)) * TURN_STEPS;
    const nearest = (steps + 0.5) | 0;
    const left = ((steps - nearest) * (2 * Math.PI)) / TURN_STEPS;
    const square = left * left;
    const sine = SINES[nearest & (TURN_STEPS - 1)]!;
    const cosine = SINES[(nearest & (TURN_STEPS - 1)) + TURN_STEPS / 4]!;
    const u = 1 - square * 0.5;
    const v = left - (left * square) / 6;
    const c = cosine * u - sine * v;
    const s = sine * u + cosine * v;
    // the source's own pressure, turned back by its way
    const ar = a * c + b * s;
    const ai = b * c - a * s;
    const gr = re[p]!;
    const gi = im[p]!;
    outRe[p]! += ar * gr - ai * gi;
    outIm[p]! += ar * gi + ai * gr;
  }
}

/** Metres from a source to points. */
const distancesTo = ({ x, y, z }: Point, points: Float64Array): Float64Array =>
  Float64Array.from({ length: points.length / 3 }, (_, p) =>
    Math.max(NEAREST_M, Math.hypot(points[3 * p]! - x, points[3 * p + 1]! - y, points[3 * p + 2]! - z)),
  );

/** Directions from a source to points: steps off its axis, and how far about it. */
interface Directions {
  off: Float64Array;
  about: Float64Array;
}

function directionsTo(
  { position, axes }: FieldSource,
  points: Float64Array,
  distance: Float64Array,
): Directions {
  const count = distance.length;
  const directions: Directions = { off: new Float64Array(count), about: new Float64Array(count) };
  const { ahead, left, up } = axes;
  for (let p = 0; p < count; p++) {
    const x = points[3 * p]! - position.x;
    const y = points[3 * p + 1]! - position.y;
    const z = points[3 * p + 2]! - position.z;
    const by = 1 / distance[p]!;
    directions.off[p] = stepsOffAxis(by * (x * ahead.x + y * ahead.y + z * ahead.z));
    directions.about[p] = shareAbout(x * left.x + y * left.y + z * left.z, x * up.x + y * up.y + z * up.z);
  }
  return directions;
}

/** The taps of directions for layers with so many steps about the axis. */
function tapsOf({ off, about }: Directions, abouts: number): Taps {
  const count = off.length;
  const taps: Taps = { at: new Int32Array(16 * count), weight: new Float32Array(16 * count) };
  for (let p = 0; p < count; p++) writeTaps(taps, 16 * p, abouts, off[p]!, about[p]!);
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

/** Pressure of all sources together at points, in the unit of the sources. */
export function fieldPressure({ sources, ...request }: FieldRequest): SourceField {
  const sum = emptyField(request.frequencies.length, request.points.length / 3);
  for (const source of sources) addSource(sum, source, request);
  return sum;
}

/**
 * Direct sound of all sources together.
 * @param how `coherent` adds pressures, with what waves do to each other; `power` adds powers, as of signals that have nothing to
 *   do with each other
 * @returns power per frequency and point, `[frequency][point]`, in the squared unit of the sources
 * @throws RangeError for more sources than are taken, or values that mean nothing
 */
export function fieldPower(request: FieldRequest, how: 'coherent' | 'power'): Float64Array[] {
  const steps = fieldPowerInSteps(request, how);
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
}

/** The same, source by source: yields the share that is done, so that whoever runs it can tell, and stop. */
export function* fieldPowerInSteps(
  request: FieldRequest,
  how: 'coherent' | 'power',
): Generator<number, Float64Array[]> {
  const { sources, points, frequencies, speed } = request;
  needWithin('fieldPower', 'number of sources', sources.length, 0, MOST_SOURCES);
  needWithin('fieldPower', 'speed of sound in m/s', speed, 100, 2000);
  if (points.length % 3 !== 0)
    throw new RangeError(`fieldPower: ${points.length} numbers are no points of three each`);
  needFinite('fieldPower', 'coordinate of a point', points);
  for (const f of frequencies) needWithin('fieldPower', 'frequency in Hz', f, 1, 200_000);
  const count = points.length / 3;
  const sum = emptyField(frequencies.length, count);
  for (const [i, source] of sources.entries()) {
    if (how === 'coherent') addSource(sum, source, request);
    else {
      const { re, im } = sourceField(source, request);
      // of powers the first of the two holds the sum
      sum.re.forEach((power, n) => {
        for (let p = 0; p < count; p++) power[p]! += re[n]![p]! ** 2 + im[n]![p]! ** 2;
      });
    }
    yield (i + 1) / sources.length;
  }
  return how === 'power' ? sum.re : sum.re.map((re, n) => re.map((v, p) => v * v + sum.im[n]![p]! ** 2));
}

/** Seconds after which the first of some sources is heard at a point, their delays with it. */
export const firstArrivalS = (
  sources: readonly { position: Point; delayS: number }[],
  point: Point,
  speed: number,
): number =>
  Math.min(...sources.map(({ position, delayS }) => delayS + distanceBetween(position, point) / speed));
