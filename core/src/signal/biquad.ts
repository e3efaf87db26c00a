import { needAbove, needWithin } from '../limits/index.js';
import { binFrequencies } from './fft.js';
import type { ComplexTrace, RealArray } from './types.js';

/** Second-order section, H(z) = (b0 + b1 z^-1 + b2 z^-2) / (1 + a1 z^-1 + a2 z^-2). */
export interface Biquad {
  b0: number;
  b1: number;
  b2: number;
  a1: number;
  a2: number;
}

function prewarped(frequency: number, rate: number): number {
  needAbove('biquad', 'rate', rate, 0);
  if (!(frequency > 0 && frequency < rate / 2)) {
    throw new RangeError(`biquad: frequency must lie within 0 and ${rate / 2} Hz, got ${frequency}`);
  }
  return Math.tan((Math.PI * frequency) / rate);
}

/** A section with a gain and a quality: no value that makes it unstable or infinite. */
function needSection(gainDb: number, q: number): void {
  needWithin('biquad', 'gain in dB', gainDb, -MOST_GAIN_DB, MOST_GAIN_DB);
  needAbove('biquad', 'q', q, 0);
}
const MOST_GAIN_DB = 200;

/** Section of second order from its analogue form by the bilinear transform: pole frequency and quality `q`. */
function secondOrder(kind: 'lowpass' | 'highpass', frequency: number, q: number, rate: number): Biquad {
  const k = prewarped(frequency, rate);
  const norm = 1 / (1 + k / q + k * k);
  const a1 = 2 * (k * k - 1) * norm;
  const a2 = (1 - k / q + k * k) * norm;
  return kind === 'lowpass'
    ? { b0: k * k * norm, b1: 2 * k * k * norm, b2: k * k * norm, a1, a2 }
    : { b0: norm, b1: -2 * norm, b2: norm, a1, a2 };
}

/** Section of first order (b2 = a2 = 0). */
function firstOrder(kind: 'lowpass' | 'highpass', frequency: number, rate: number): Biquad {
  const k = prewarped(frequency, rate);
  const a1 = (k - 1) / (k + 1);
  return kind === 'lowpass'
    ? { b0: k / (k + 1), b1: k / (k + 1), b2: 0, a1, a2: 0 }
    : { b0: 1 / (k + 1), b1: -1 / (k + 1), b2: 0, a1, a2: 0 };
}

/** Butterworth low- or high-pass of any order from 1 to 8 as a cascade of sections; -3 dB at `frequency`. */
export function butterworth(
  kind: 'lowpass' | 'highpass',
  order: number,
  frequency: number,
  rate: number,
): Biquad[] {
  if (!(Number.isInteger(order) && order >= 1 && order <= 8)) {
    throw new RangeError(`butterworth: order must be 1 to 8, got ${order}`);
  }
  const sections = order % 2 ? [firstOrder(kind, frequency, rate)] : [];
  for (let i = 0; i < Math.floor(order / 2); i++) {
    // poles lie pi/order apart; those of an odd order include the real axis, of an even one straddle it
    const angle = (Math.PI * (2 * i + 1 + (order % 2))) / (2 * order);
    const q = 1 / (2 * Math.cos(angle));
    sections.push(secondOrder(kind, frequency, q, rate));
  }
  return sections;
}

/** Linkwitz-Riley low- or high-pass of order 2, 4 or 8: two equal Butterworth cascades; -6 dB at `frequency`. */
export function linkwitzRiley(
  kind: 'lowpass' | 'highpass',
  order: number,
  frequency: number,
  rate: number,
): Biquad[] {
  if (order !== 2 && order !== 4 && order !== 8)
    throw new RangeError(`linkwitzRiley: order must be 2, 4 or 8, got ${order}`);
  const half = butterworth(kind, order / 2, frequency, rate);
  return [...half, ...half];
}

/** Peaking section: `gainDb` at `frequency`, 0 dB far away; `q` = frequency / bandwidth at half the gain in dB. */
export function peaking(frequency: number, gainDb: number, q: number, rate: number): Biquad {
  needSection(gainDb, q);
  const k = prewarped(frequency, rate);
  const root = 10 ** (gainDb / 40);
  const norm = 1 / (1 + k / (root * q) + k * k);
  return {
    b0: (1 + (k * root) / q + k * k) * norm,
    b1: 2 * (k * k - 1) * norm,
    b2: (1 - (k * root) / q + k * k) * norm,
    a1: 2 * (k * k - 1) * norm,
    a2: (1 - k / (root * q) + k * k) * norm,
  };
}

/** Shelf: `gainDb` far below (low) or far above (high), half of it in dB at `frequency`; `q` of its poles, 0.71 for the steepest without overshoot (Bristow-Johnson). */
function shelf(kind: 'low' | 'high', frequency: number, gainDb: number, q: number, rate: number): Biquad {
  needSection(gainDb, q);
  const k = prewarped(frequency, rate);
  const a = 10 ** (gainDb / 40);
  const root = Math.sqrt(a);
  // analogue prototype A (s^2 + sqrt(A)/q s + A) / (A s^2 + sqrt(A)/q s + 1), s = tan-warped; the high one is its mirror
  const side = root / q;
  const [n0, n1, n2, d0, d1, d2] =
    kind === 'low' ? [a * a, a * side, a, 1, side, a] : [a, a * side, a * a, a, side, 1]; // coefficients of s^0, s^1, s^2
  const norm = 1 / (d2 + d1 * k + d0 * k * k);
  return {
    b0: (n2 + n1 * k + n0 * k * k) * norm,
    b1: 2 * (n0 * k * k - n2) * norm,
    b2: (n2 - n1 * k + n0 * k * k) * norm,
    a1: 2 * (d0 * k * k - d2) * norm,
    a2: (d2 - d1 * k + d0 * k * k) * norm,
  };
}

/** Low shelf of second order. */
export const lowShelf = (frequency: number, gainDb: number, q: number, rate: number): Biquad =>
  shelf('low', frequency, gainDb, q, rate);

/** High shelf of second order. */
export const highShelf = (frequency: number, gainDb: number, q: number, rate: number): Biquad =>
  shelf('high', frequency, gainDb, q, rate);

/** All-pass of second order: magnitude 1, phase falls by 360 degrees around `frequency`. */
export function allPass(frequency: number, q: number, rate: number): Biquad {
  needSection(0, q);
  const k = prewarped(frequency, rate);
  const norm = 1 / (1 + k / q + k * k);
  const a1 = 2 * (k * k - 1) * norm;
  const a2 = (1 - k / q + k * k) * norm;
  return { b0: a2, b1: a1, b2: 1, a1, a2 };
}

/** All-pass of first order: magnitude 1, phase falls by 180 degrees, half of it at `frequency`. */
export function firstOrderAllPass(frequency: number, rate: number): Biquad {
  const k = prewarped(frequency, rate);
  const c = (k - 1) / (k + 1);
  return { b0: c, b1: 1, b2: 0, a1: c, a2: 0 };
}

/** Cosine and -sine of the angle of every frequency at a rate. */
interface Angles {
  rate: number;
  cosine: Float64Array;
  sine: Float64Array;
}

/** One cascade after the other is mostly evaluated at the same frequencies. */
const known = new WeakMap<Float64Array, Angles>();

function anglesOf(frequency: Float64Array, rate: number): Angles {
  let angles = known.get(frequency);
  if (angles?.rate !== rate) {
    const [cosine, sine] = [new Float64Array(frequency.length), new Float64Array(frequency.length)];
    for (let k = 0; k < frequency.length; k++) {
      const angle = (2 * Math.PI * frequency[k]!) / rate;
      cosine[k] = Math.cos(angle);
      sine[k] = -Math.sin(angle);
    }
    angles = { rate, cosine, sine };
    known.set(frequency, angles);
  }
  return angles;
}

/**
 * Response of a cascade of sections, made for `rate`, at any frequencies.
 * @param frequency Hz; not written to afterwards, as what belongs to it is kept
 */
export function biquadTrace(sections: Biquad[], frequency: Float64Array, rate: number): ComplexTrace {
  const n = frequency.length;
  const re = new Float64Array(n).fill(1);
  const im = new Float64Array(n);
  if (sections.length === 0) return { frequency, re, im };
  const { cosine, sine } = anglesOf(frequency, rate);
  for (const { b0, b1, b2, a1, a2 } of sections) {
    for (let k = 0; k < n; k++) {
      const c1 = cosine[k]!;
      const s1 = sine[k]!;
      const c2 = 2 * c1 * c1 - 1;
      const s2 = 2 * s1 * c1;
      const nr = b0 + b1 * c1 + b2 * c2;
      const ni = b1 * s1 + b2 * s2;
      const dr = 1 + a1 * c1 + a2 * c2;
      const di = a1 * s1 + a2 * s2;
      const d = dr * dr + di * di;
      const hr = (nr * dr + ni * di) / d;
      const hi = (ni * dr - nr * di) / d;
      const old = re[k]!;
      re[k] = old * hr - im[k]! * hi;
      im[k] = old * hi + im[k]! * hr;
    }
  }
  return { frequency, re, im };
}

/** Response of a cascade of sections at the bins of `size`, at the rate they were made for. */
export const biquadSpectrum = (sections: Biquad[], size: number): ComplexTrace =>
  biquadTrace(sections, binFrequencies(size, 1), 1);

/** Response of one section at a frequency in Hz: real and imaginary part. */
export function biquadAt({ b0, b1, b2, a1, a2 }: Biquad, frequency: number, rate: number): [number, number] {
  const w = (2 * Math.PI * frequency) / rate;
  const [c1, s1, c2, s2] = [Math.cos(w), -Math.sin(w), Math.cos(2 * w), -Math.sin(2 * w)];
  const [nr, ni] = [b0 + b1 * c1 + b2 * c2, b1 * s1 + b2 * s2];
  const [dr, di] = [1 + a1 * c1 + a2 * c2, a1 * s1 + a2 * s2];
  const d = dr * dr + di * di;
  return [(nr * dr + ni * di) / d, (ni * dr - nr * di) / d];
}

/** The signal through a cascade of sections, from rest (transposed direct form II). */
export function filterBiquads(signal: RealArray, sections: Biquad[]): Float64Array {
  const out = Float64Array.from(signal);
  for (const { b0, b1, b2, a1, a2 } of sections) {
    let z1 = 0;
    let z2 = 0;
    for (let i = 0; i < out.length; i++) {
      const x = out[i]!;
      const y = b0 * x + z1;
      z1 = b1 * x - a1 * y + z2;
      z2 = b2 * x - a2 * y;
      out[i] = y;
    }
  }
  return out;
}
