import { needAbove, needFinite, needNumber, needWithin } from '../limits/index.js';
import { dbOfGain, type ComplexTrace } from '../signal/index.js';
import { poleFactors } from './poles.js';
import { MOST_ORDER, type AllPassShape, type PassShape, type Shape } from './shape.js';

/** (n0 + n1 s + n2 s²) / (d0 + d1 s + d2 s²) with s = j at the frequency of the shape. */
export type Factor = readonly [n0: number, n1: number, n2: number, d0: number, d1: number, d2: number];

const MOST_GAIN_DB = 200;

/** @throws RangeError for a frequency, gain, quality or order that means nothing */
export function needShape(shape: Shape): void {
  needAbove('shape', 'frequency', shape.hz, 0);
  if ('gainDb' in shape) needWithin('shape', 'gain in dB', shape.gainDb, -MOST_GAIN_DB, MOST_GAIN_DB);
  if ('q' in shape && shape.q !== null) needAbove('shape', 'q', shape.q, 0);
  if ('order' in shape) needWithin('shape', 'order', shape.order, 1, MOST_ORDER);
  if ('q' in shape && 'order' in shape && (shape.q === null) !== (shape.order === 1))
    throw new RangeError('shape: one of second order has a q, one of first order has none');
}

/** Rational factors of a shape, in s over its own angular frequency. */
export function factorsOf(shape: Shape): Factor[] {
  switch (shape.kind) {
    case 'peaking': {
      const a = 10 ** (shape.gainDb / 40);
      return [[1, a / shape.q, 1, 1, 1 / (a * shape.q), 1]];
    }
    case 'low shelf':
    case 'high shelf': {
      const a = 10 ** (shape.gainDb / 40);
      const side = shape.q === null ? 0 : Math.sqrt(a) / shape.q;
      const low: Factor = shape.q === null ? [a, 1, 0, 1 / a, 1, 0] : [a * a, a * side, a, 1, side, a];
      return [shape.kind === 'low shelf' ? low : mirrored(low, shape.order)];
    }
    case 'high-pass':
    case 'low-pass':
      return passFactors(shape);
    case 'all-pass':
      return shape.q === null ? [[1, -1, 0, 1, 1, 0]] : [[1, -1 / shape.q, 1, 1, 1 / shape.q, 1]];
  }
}

/** The same with 1/s in the place of s. */
const mirrored = ([n0, n1, n2, d0, d1, d2]: Factor, order: number): Factor =>
  order === 1 ? [n1, n0, 0, d1, d0, 0] : [n2, n1, n0, d2, d1, d0];

const passFactors = ({ kind, family, order }: PassShape): Factor[] =>
  poleFactors(family, order).map(({ first, second }): Factor => {
    const low: Factor = [1, 0, 0, 1, first, second];
    return kind === 'low-pass' ? low : mirrored(low, second === 0 ? 1 : 2);
  });

/** Frequency over that of a shape as the s-plane sees it: warped by the bilinear transform where it is made at a rate. */
function relative(hz: number, at: Float64Array, rate: number | null): Float64Array {
  if (rate !== null) needWithin('shape', 'frequency in Hz', hz, 0, rate / 2);
  const own = seenBy(rate, hz);
  return at.map((f) => (rate === null || f < rate / 2 ? seenBy(rate, f) / own : NaN));
}

/**
 * What shapes in a row do.
 * @param frequency Hz, in any order
 * @param rate of the bilinear transform that they are made with, Hz; null for circuits, whose frequencies are not warped
 * @throws RangeError for shapes or frequencies that mean nothing
 */
export function shapeTrace(
  shapes: readonly Shape[],
  frequency: Float64Array,
  rate: number | null = null,
): ComplexTrace {
  needFinite('shapeTrace', 'frequency', frequency);
  const re = new Float64Array(frequency.length).fill(1);
  const im = new Float64Array(frequency.length);
  for (const shape of shapes) {
    needShape(shape);
    const x = relative(shape.hz, frequency, rate);
    for (const [n0, n1, n2, d0, d1, d2] of factorsOf(shape))
      for (let k = 0; k < x.length; k++) {
        const s = x[k]!;
        const [nr, ni, dr, di] = [n0 - n2 * s * s, n1 * s, d0 - d2 * s * s, d1 * s];
        const size = dr * dr + di * di;
        const [hr, hi] = [(nr * dr + ni * di) / size, (ni * dr - nr * di) / size];
        const old = re[k]!;
        re[k] = old * hr - im[k]! * hi;
        im[k] = old * hi + im[k]! * hr;
      }
  }
  return { frequency, re, im };
}

/** Frequencies as shapes see them: warped where they are made at a rate. */
export const seenBy = (rate: number | null, hz: number): number =>
  rate === null ? hz : Math.tan((Math.PI * hz) / rate);

/**
 * Multiplies powers by what one shape does; without checks: for searches.
 * @param seen frequencies as `seenBy` has them
 */
export function multiplyPower(
  shape: Shape,
  seen: Float64Array,
  rate: number | null,
  out: Float64Array,
): void {
  const own = 1 / seenBy(rate, shape.hz) ** 2;
  for (const [n0, n1, n2, d0, d1, d2] of factorsOf(shape)) {
    const [na, nb, nc] = [n0 * n0, n1 * n1 - 2 * n0 * n2, n2 * n2];
    const [da, db, dc] = [d0 * d0, d1 * d1 - 2 * d0 * d2, d2 * d2];
    for (let k = 0; k < out.length; k++) {
      const s = seen[k]! * seen[k]! * own;
      out[k] = (out[k]! * (na + s * (nb + s * nc))) / (da + s * (db + s * dc));
    }
  }
}

/** By how much a shelf goes beyond its flat side, dB, on the other side of 0 than its gain; 0 for one that does not. */
export function undershootDb(shape: Shape): number {
  needShape(shape);
  if (shape.kind !== 'low shelf' && shape.kind !== 'high shelf') return 0;
  needNumber('undershootDb', 'gain', shape.gainDb);
  let most = 0;
  const sign = shape.gainDb < 0 ? -1 : 1;
  for (const [n0, n1, n2, d0, d1, d2] of factorsOf(shape))
    for (let n = -200; n <= 200; n++) {
      const s = 10 ** (n / 50);
      const gain = Math.hypot(n0 - n2 * s * s, n1 * s) / Math.hypot(d0 - d2 * s * s, d1 * s);
      most = Math.max(most, -sign * dbOfGain(gain));
    }
  // what is beyond the flat side by rounding alone
  return most < 1e-9 ? 0 : most;
}

/** Adds the phase of an all-pass, radians, from 0 downwards without a jump; without checks: for searches. */
export function addShapePhase(
  { hz, q }: AllPassShape,
  frequency: Float64Array,
  rate: number | null,
  out: Float64Array,
): void {
  const x = relative(hz, frequency, rate);
  for (let k = 0; k < x.length; k++) {
    const turn = q === null ? Math.atan(x[k]!) : Math.atan2(x[k]! / q, 1 - x[k]! * x[k]!);
    out[k] = out[k]! - 2 * turn;
  }
}
