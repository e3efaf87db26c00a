import { needWithin } from '../limits/index.js';
import { gainOfDb } from './decibels.js';
import { realFft } from './fft.js';
import type { ComplexTrace } from './types.js';
import { cosineStep } from './windows.js';

/** Below this a sweep in single precision is silence. */
const LEAST_DBFS = -140;

/** What a sweep is asked to be: the band it must keep, how long, how loud, at which rate. */
export interface SweepRequest {
  rate: number;
  /** band in Hz within which the sweep is at full level; fades lie outside it */
  from: number;
  to: number;
  durationS: number;
  /** peak level re full scale, at most 0 */
  levelDbfs: number;
}

/** An exponential sweep and what is needed to undo it. */
export interface Sweep extends SweepRequest {
  samples: Float64Array;
  /** Hz at the first and at the last sample */
  startsAt: number;
  endsAt: number;
  /** seconds for the frequency to grow by e; a whole number of periods of `startsAt` (synchronised) */
  growthS: number;
}

/**
 * An octave below and up to a sixth above are spent on the fades: the edge of the response's band rings ahead of it for as
 * long as it is narrow, and half an octave at 20 Hz would ring for 0.2 s.
 */
const FADE_BELOW = 0.5;
const FADE_ABOVE = 2 ** (1 / 6);

/**
 * Synchronised exponential sweep, x(t) = sin(2 pi f1 L e^(t/L)) with f1 L whole, so that harmonics keep their phase
 * (Novak, Lotton, Simon 2015, eq. 11 and 33). The fades are raised cosines outside [from, to].
 * @throws RangeError for a band that is empty or leaves no room below half the rate, a duration outside 0.1-30 s, a level over 0
 */
export function exponentialSweep(request: SweepRequest): Sweep {
  const { rate, from, to, durationS, levelDbfs } = request;
  needWithin('exponentialSweep', 'rate', rate, 1000, 1e6);
  if (!(from > 0 && to > from && to < 0.49 * rate)) {
    throw new RangeError(
      `exponentialSweep: band must lie within 0 to ${0.49 * rate} Hz, got ${from} to ${to}`,
    );
  }
  if (!(durationS >= 0.1 && durationS <= 30)) {
    throw new RangeError(`exponentialSweep: duration must be 0.1 to 30 s, got ${durationS}`);
  }
  needWithin('exponentialSweep', 'level in dBFS', levelDbfs, LEAST_DBFS, 0);
  const aim = Math.min(to * FADE_ABOVE, 0.498 * rate);
  const lowest = from * FADE_BELOW;
  const periods = Math.max(1, Math.floor((lowest * durationS) / Math.log(aim / lowest)));
  // f1 L = periods and L ln(f2 / f1) = duration give L by iteration: the start moves a little, the duration holds
  let growthS = durationS / Math.log(aim / lowest);
  for (let i = 0; i < 30; i++) growthS = durationS / Math.log((aim * growthS) / periods);
  const startsAt = periods / growthS;
  const length = Math.round(durationS * rate);
  const peak = gainOfDb(levelDbfs);
  const samples = new Float64Array(length);
  let frequency = startsAt;
  for (let i = 0; i < length; i++) {
    const growth = Math.exp(i / rate / growthS);
    frequency = startsAt * growth;
    const fade =
      cosineStep(Math.log(frequency), Math.log(startsAt), Math.log(from)) *
      cosineStep(Math.log(frequency), Math.log(aim), Math.log(to));
    samples[i] = peak * fade * Math.sin(2 * Math.PI * startsAt * growthS * growth);
  }
  return { ...request, samples, startsAt, endsAt: frequency, growthS };
}

/** Seconds by which the response of harmonic `order` arrives ahead of the linear one: L ln k. */
export function harmonicLead({ growthS }: Pick<Sweep, 'growthS'>, order: number): number {
  needWithin('harmonicLead', 'order', order, 1, 1000);
  return growthS * Math.log(order);
}

/** Spectrum of a sweep and of what undoes it, of one size. */
export interface SweepSpectra {
  forward: ComplexTrace;
  inverse: ComplexTrace;
}

const known = new WeakMap<Sweep, Map<number, SweepSpectra>>();

/**
 * Spectrum of a sweep and its inverse filter, as half spectra of `size`. The inverse is exactly 1 / X within the band,
 * falling to 0 as a raised cosine over log frequency where the fades are, so nothing outside is amplified (after Farina
 * 2000, in the frequency domain). Worked out once for a sweep and size; not to be written to.
 * @throws RangeError when the sweep does not fit `size`
 */
export function sweepSpectra(sweep: Sweep, size: number): SweepSpectra {
  const sizes = known.get(sweep) ?? new Map<number, SweepSpectra>();
  known.set(sweep, sizes);
  let spectra = sizes.get(size);
  if (!spectra) {
    const forward = realFft(sweep.samples, size);
    sizes.set(size, (spectra = { forward, inverse: invert(sweep, forward) }));
  }
  return spectra;
}

function invert(sweep: Sweep, { frequency, re, im }: ComplexTrace): ComplexTrace {
  const [f1, f2] = [Math.log(sweep.startsAt), Math.log(sweep.endsAt)];
  const [from, to] = [Math.log(sweep.from), Math.log(sweep.to)];
  const outRe = new Float64Array(re.length);
  const outIm = new Float64Array(re.length);
  for (let k = 1; k < re.length; k++) {
    const f = Math.log(frequency[k]! * sweep.rate);
    const weight = cosineStep(f, f1, from) * cosineStep(f, f2, to);
    if (weight === 0) continue;
    const power = re[k]! ** 2 + im[k]! ** 2;
    outRe[k] = (weight * re[k]!) / power;
    outIm[k] = (-weight * im[k]!) / power;
  }
  return { frequency, re: outRe, im: outIm };
}
