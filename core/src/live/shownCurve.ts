import { needWithin } from '../limits/index.js';
import { dbOfPower } from '../signal/index.js';
import type { TransferCurve } from './transferFunction.js';

/** Points of a live grid to an octave. */
const PER_OCTAVE = 48;

/**
 * A curve on a grid of 48 points to an octave, smoothed over 1/`fraction` octave: its level is that of the mean power, its phase that
 * of the complex mean, its coherence the mean. What is not known stays so, and does not count beside.
 */
export function smoothedCurve(curve: TransferCurve, fraction: number): TransferCurve {
  needWithin('smoothedCurve', 'fraction', fraction, 1, PER_OCTAVE);
  const width = PER_OCTAVE / fraction;
  const reach = Math.floor(width / 2);
  // what lies half within counts half
  const atEnds = (width - (2 * reach - 1)) / 2;
  if (reach === 0) return curve;
  const { frequency, re, im, coherence } = curve;
  const n = frequency.length;
  const out = {
    frequency,
    re: new Float64Array(n).fill(NaN),
    im: new Float64Array(n).fill(NaN),
    coherence: new Float64Array(n).fill(NaN),
  };
  for (let i = 0; i < n; i++) {
    if (Number.isNaN(re[i]!)) continue;
    let [a, b, power, count, seen, coherent] = [0, 0, 0, 0, 0, 0];
    for (let k = Math.max(0, i - reach); k <= Math.min(n - 1, i + reach); k++) {
      const [x, y, c] = [re[k]!, im[k]!, coherence[k]!];
      if (Number.isNaN(x)) continue;
      const share = Math.abs(k - i) === reach ? atEnds : 1;
      a += share * x;
      b += share * y;
      power += share * (x * x + y * y);
      count += share;
      if (Number.isNaN(c)) continue;
      coherent += share * c;
      seen += share;
    }
    const size = Math.hypot(a, b);
    const gain = size > 0 ? Math.sqrt(power / count) / size : 0;
    out.re[i] = gain * a;
    out.im[i] = gain * b;
    if (seen > 0) out.coherence[i] = coherent / seen;
  }
  return out;
}

/** Level of a curve, dB; NaN where it is not known. */
export const curveLevelDb = ({ re, im }: TransferCurve): Float64Array =>
  re.map((x, n) => dbOfPower(x * x + im[n]! * im[n]!));

/**
 * Phase of a curve, degrees.
 * @param turnDeg added, as turned by hand
 * @param isUnwrapped whether it goes on beyond half a turn, from the best known frequency outwards; else within -180 to 180
 */
export function curvePhaseDeg(
  { re, im, coherence }: TransferCurve,
  { turnDeg = 0, isUnwrapped = false }: { turnDeg?: number; isUnwrapped?: boolean } = {},
): Float64Array {
  const phase = re.map((x, n) => (Math.atan2(im[n]!, x) * 180) / Math.PI);
  const wrap = (v: number) => v - 360 * Math.round(v / 360);
  if (!isUnwrapped) return phase.map((v) => wrap(v + turnDeg));
  let start = -1;
  phase.forEach((v, n) => {
    if (Number.isNaN(v)) return;
    if (start < 0 || (coherence[n]! || 0) > (coherence[start]! || 0)) start = n;
  });
  if (start < 0) return phase;
  const out = phase.map((v) => v + turnDeg);
  out[start] = wrap(out[start]!);
  for (const step of [1, -1]) {
    let last = out[start]!;
    for (let n = start + step; n >= 0 && n < out.length; n += step) {
      if (Number.isNaN(out[n]!)) continue;
      last = out[n] = out[n]! - 360 * Math.round((out[n]! - last) / 360);
    }
  }
  return out;
}

/** Group delay of a curve, seconds: the slope of its phase between the neighbours of each point; NaN where one is not known. */
export function curveGroupDelayS({ frequency, re, im }: TransferCurve): Float64Array {
  const n = frequency.length;
  return frequency.map((_, i) => {
    if (i === 0 || i === n - 1) return NaN;
    const [a, b, c, d] = [re[i - 1]!, im[i - 1]!, re[i + 1]!, im[i + 1]!];
    // phase of the later one against the earlier one
    const turn = Math.atan2(d * a - c * b, c * a + d * b);
    return -turn / (2 * Math.PI * (frequency[i + 1]! - frequency[i - 1]!));
  });
}
