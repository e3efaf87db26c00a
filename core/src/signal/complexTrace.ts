import { isBinAxis } from './fft.js';
import type { ComplexTrace } from './types.js';

/** Two traces fit where their frequencies are one array, or both the bins of one size, whatever unit they are told in. */
function sameFrequencies(who: string, a: ComplexTrace, b: ComplexTrace): void {
  const [one, other] = [a.frequency, b.frequency];
  if (one === other) return;
  if (one.length === other.length && isBinAxis(one) && isBinAxis(other)) return;
  if (one.length !== other.length || one.some((f, k) => f !== other[k]))
    throw new RangeError(`${who}: traces of ${one.length} and ${other.length} frequencies do not match`);
}

/** A trace of one value at given frequencies; 1 by default, what does nothing. */
export const constantTrace = (frequency: Float64Array, value = 1): ComplexTrace => ({
  frequency,
  re: new Float64Array(frequency.length).fill(value),
  im: new Float64Array(frequency.length),
});

/** Product of two traces: one filter behind the other; of spectra, convolution in time, circular over their size. */
export function multiplyTraces(a: ComplexTrace, b: ComplexTrace): ComplexTrace {
  sameFrequencies('multiplyTraces', a, b);
  const n = a.re.length;
  const re = new Float64Array(n);
  const im = new Float64Array(n);
  for (let k = 0; k < n; k++) {
    const [ar, ai, br, bi] = [a.re[k]!, a.im[k]!, b.re[k]!, b.im[k]!];
    re[k] = ar * br - ai * bi;
    im[k] = ar * bi + ai * br;
  }
  return { frequency: a.frequency, re, im };
}

/**
 * One trace over another, where the other is nearly nothing no more than `mostGain` times the one: what lies that far
 * down is noise.
 */
export function divideTraces(a: ComplexTrace, b: ComplexTrace, mostGain: number): ComplexTrace {
  sameFrequencies('divideTraces', a, b);
  const n = a.re.length;
  const re = new Float64Array(n);
  const im = new Float64Array(n);
  const least = 1 / (mostGain * mostGain);
  for (let k = 0; k < n; k++) {
    const [ar, ai, br, bi] = [a.re[k]!, a.im[k]!, b.re[k]!, b.im[k]!];
    const power = Math.max(br * br + bi * bi, least);
    re[k] = (ar * br + ai * bi) / power;
    im[k] = (ai * br - ar * bi) / power;
  }
  return { frequency: a.frequency, re, im };
}

/** Adds `part` to `sum`, which is altered. */
export function addTo(sum: ComplexTrace, part: ComplexTrace): void {
  sameFrequencies('addTo', sum, part);
  for (let k = 0; k < sum.re.length; k++) {
    sum.re[k] = sum.re[k]! + part.re[k]!;
    sum.im[k] = sum.im[k]! + part.im[k]!;
  }
}

export const scaleTrace = ({ frequency, re, im }: ComplexTrace, gain: number): ComplexTrace => ({
  frequency,
  re: re.map((v) => gain * v),
  im: im.map((v) => gain * v),
});

/**
 * The same later by `delay`, in the reciprocal of the frequencies' unit: seconds for Hz, samples for cycles per sample.
 * May be negative; of a spectrum, circular over its size, and its last bin, at half the rate, keeps only its real part,
 * as a real signal demands.
 */
export function delayTrace({ frequency, re, im }: ComplexTrace, delay: number): ComplexTrace {
  if (!Number.isFinite(delay)) throw new RangeError(`delayTrace: delay must be finite, got ${delay}`);
  const n = re.length;
  const outRe = new Float64Array(n);
  const outIm = new Float64Array(n);
  const isEven = isBinAxis(frequency);
  const stepAngle = isEven ? -2 * Math.PI * frequency[1]! * delay : 0;
  const [stepC, stepS] = [Math.cos(stepAngle), Math.sin(stepAngle)];
  let c = 1;
  let s = 0;
  for (let k = 0; k < n; k++) {
    if (!isEven || k % 64 === 0) {
      // on even bins, stepping on from one to the next is quick, and set right again before rounding adds up
      const angle = -2 * Math.PI * frequency[k]! * delay;
      c = Math.cos(angle);
      s = Math.sin(angle);
    }
    outRe[k] = re[k]! * c - im[k]! * s;
    outIm[k] = re[k]! * s + im[k]! * c;
    const next = c * stepC - s * stepS;
    s = c * stepS + s * stepC;
    c = next;
  }
  if (isEven) outIm[n - 1] = 0;
  return { frequency, re: outRe, im: outIm };
}

/** |X|^2 at each frequency. */
export function powerOf({ re, im }: Pick<ComplexTrace, 're' | 'im'>): Float64Array {
  const out = new Float64Array(re.length);
  for (let k = 0; k < out.length; k++) out[k] = re[k]! ** 2 + im[k]! ** 2;
  return out;
}
