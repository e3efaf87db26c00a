import { needWithin } from '../limits/index.js';
import { crossoverTrace, type WayFilter } from './wayFilter.js';
import { radiatorGain, type Complex, type Radiator } from './radiators.js';

/** One way of a loudspeaker: what radiates, where from, and what of the signal it gets. */
export interface Way {
  radiator: Radiator;
  /** from the point that the loudspeaker is placed by, metres */
  ahead: number;
  left: number;
  up: number;
  gainDb: number;
  filters: WayFilter[];
}

/** Step of a balloon off the axis; about it, it has as many as its radiation asks for. */
export const ANGLE_STEP_DEG = 1;
export const ANGLES = 180 / ANGLE_STEP_DEG + 1;
export const STEPS_ABOUT = [36, 72, 120, 180, 360];
/** So far, radians, the phase of what lies farthest apart may turn from one step about the axis to the next. */
const MOST_TURN = 0.7;

/** How many steps about the axis hold what some ways radiate: few where it is alike all about. */
export function aboutsFor(ways: readonly Way[], k: number): number {
  const reach = Math.max(
    ...ways.map(({ left, up, radiator }) => {
      const own = radiator.kind === 'opening' ? Math.hypot(radiator.widthM, radiator.heightM) / 2 : 0;
      return Math.hypot(left, up) + own;
    }),
  );
  if (reach === 0) return 4;
  return STEPS_ABOUT.find((n) => (k * reach * 2 * Math.PI) / n <= MOST_TURN) ?? STEPS_ABOUT.at(-1)!;
}

/**
 * Radiation of a loudspeaker in all directions at one frequency, far away, against that on its axis: complex, as heard from the
 * point that it is placed by. `[angle][about]`, from the axis to behind it, and about it from its left over its upper side.
 */
export interface Layer {
  frequency: number;
  /** steps about the axis */
  abouts: number;
  re: Float32Array;
  im: Float32Array;
}

/** One for each frequency, ascending. */
export type Balloon = Layer[];

/**
 * A layer of a loudspeaker from its ways: each its radiator, its filters and the way its place makes shorter or longer.
 * @param ways at least one
 * @param frequency Hz
 * @param speed of sound, m/s
 * @throws RangeError where the ways cancel on the axis: then nothing can be told against it
 */
export function layerOf(ways: readonly Way[], frequency: number, speed: number): Layer {
  needWithin('layerOf', 'frequency in Hz', frequency, 1, 200_000);
  needWithin('layerOf', 'speed of sound in m/s', speed, 100, 2000);
  const k = (2 * Math.PI * frequency) / speed;
  const abouts = aboutsFor(ways, k);
  const parts = ways.map((way) => ({
    way,
    drive: driven(way, frequency),
    gain: tabled(radiatorGain(way.radiator, k), way.radiator.kind === 'opening' ? abouts : null),
  }));
  const re = new Float32Array(ANGLES * abouts);
  const im = new Float32Array(ANGLES * abouts);
  const sum = (i: number, j: number): Complex => {
    const angle = (i * ANGLE_STEP_DEG * Math.PI) / 180;
    const about = (j * 2 * Math.PI) / abouts;
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    let [x, y] = [0, 0];
    for (const { way, drive, gain } of parts) {
      const nearer = k * (way.ahead * c + s * (way.left * Math.cos(about) + way.up * Math.sin(about)));
      const [p, q] = [Math.cos(nearer), Math.sin(nearer)];
      const g = gain(i, j);
      const [a, b] = [drive.re * p - drive.im * q, drive.re * q + drive.im * p];
      x += a * g.re - b * g.im;
      y += a * g.im + b * g.re;
    }
    return { re: x, im: y };
  };
  const axis = sum(0, 0);
  const power = axis.re ** 2 + axis.im ** 2;
  if (!(power > 1e-12))
    throw new RangeError(`layerOf: the ways cancel each other on the axis at ${frequency} Hz`);
  for (let i = 0; i < ANGLES; i++)
    for (let j = 0; j < abouts; j++) {
      const s = sum(i, j);
      re[i * abouts + j] = (s.re * axis.re + s.im * axis.im) / power;
      im[i * abouts + j] = (s.im * axis.re - s.re * axis.im) / power;
    }
  return { frequency, abouts, re, im };
}

const driven = ({ gainDb, filters }: Way, frequency: number): Complex =>
  filters.reduce<Complex>(
    (now, f) => {
      const h = crossoverTrace(f, frequency);
      return { re: now.re * h.re - now.im * h.im, im: now.re * h.im + now.im * h.re };
    },
    { re: 10 ** (gainDb / 20), im: 0 },
  );

/** A radiator's directivity on the steps of a balloon, `abouts` about its axis; what is alike all about its axis is worked out once for each angle. */
function tabled(
  gain: (angle: number, about: number) => Complex,
  abouts: number | null,
): (i: number, j: number) => Complex {
  const angle = (i: number) => (i * ANGLE_STEP_DEG * Math.PI) / 180;
  const known: Complex[] = [];
  if (abouts !== null) return (i, j) => gain(angle(i), (j * 2 * Math.PI) / abouts);
  return (i) => (known[i] ??= gain(angle(i), 0));
}

/** Places in a layer around a direction, and how much each counts: cubic both ways, so that sixteen count. */
export interface Taps {
  at: Int32Array;
  weight: Float32Array;
}

/** Catmull and Rom's weights (1974) of four neighbours, at t from the second to the third, written without a list of their own. */
function writeCubic(into: Float64Array, from: number, t: number): void {
  const t2 = t * t;
  const t3 = t2 * t;
  into[from] = 0.5 * (-t + 2 * t2 - t3);
  into[from + 1] = 0.5 * (2 - 5 * t2 + 3 * t3);
  into[from + 2] = 0.5 * (t + 4 * t2 - 3 * t3);
  into[from + 3] = 0.5 * (-t2 + t3);
}
/** Weights along both axes, for one direction at a time: this runs for every source and point. */
const scratch = new Float64Array(8);

/** Steps off the axis of a direction that has so much of itself along it. */
export const stepsOffAxis = (ahead: number): number =>
  (Math.acos(ahead > 1 ? 1 : ahead < -1 ? -1 : ahead) * 180) / Math.PI / ANGLE_STEP_DEG;

/** How far about the axis a direction lies, 0 to 1 of a whole turn, from its left over its upper side. */
export function shareAbout(left: number, up: number): number {
  const share = Math.atan2(up, left) / (2 * Math.PI);
  return share < 0 ? share + 1 : share;
}

/**
 * Writes the sixteen taps of a direction.
 * @param offset where the sixteen begin in `taps`
 * @param abouts steps about the axis of the layers that they are for
 * @param u its steps off the axis @param share how far about it, both as above
 */
export function writeTaps(taps: Taps, offset: number, abouts: number, u: number, share: number): void {
  const v = share * abouts;
  const i0 = Math.min(ANGLES - 2, Math.floor(u));
  const j0 = Math.min(abouts - 1, Math.floor(v));
  writeCubic(scratch, 0, u - i0);
  writeCubic(scratch, 4, v - j0);
  let n = offset;
  for (let a = 0; a < 4; a++) {
    let i = i0 + a - 1;
    let j = j0 - 1 + abouts;
    // beyond a pole one comes down on the other side
    if (i < 0) {
      i = -i;
      j += abouts / 2;
    } else if (i >= ANGLES) {
      i = 2 * (ANGLES - 1) - i;
      j += abouts / 2;
    }
    const row = i * abouts;
    const w = scratch[a]!;
    for (let b = 0; b < 4; b++) {
      taps.at[n] = row + ((j + b) % abouts);
      taps.weight[n] = w * scratch[4 + b]!;
      n++;
    }
  }
}

/** Radiation in a direction by its parts along the axes of a loudspeaker, against that on its axis. */
export function layerGain(layer: Layer, ahead: number, left: number, up: number): Complex {
  const taps: Taps = { at: new Int32Array(16), weight: new Float32Array(16) };
  writeTaps(taps, 0, layer.abouts, stepsOffAxis(ahead), shareAbout(left, up));
  let [re, im] = [0, 0];
  for (let n = 0; n < 16; n++) {
    re += taps.weight[n]! * layer.re[taps.at[n]!]!;
    im += taps.weight[n]! * layer.im[taps.at[n]!]!;
  }
  return { re, im };
}
