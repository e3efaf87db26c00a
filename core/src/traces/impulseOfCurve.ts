import { needWithin } from '../limits/index.js';
import { cosineStep, interpolateSmooth, inverseRealFft, type ImpulseResponse } from '../signal/index.js';
import type { LibraryCurve } from './libraryCurve.js';

/** How much of an impulse response lies ahead of its time zero, as a part of its length. */
const AHEAD = 1 / 8;
/** Delays between these are looked for, seconds, so finely. */
const DELAYS = { from: -0.05, to: 0.4, step: 1 / 96_000 };
/** Beyond the ends of the curve it fades out over so many octaves. */
const FADE_OCTAVES = 1;

/**
 * The impulse response of a curve that has a phase: level and phase between its points interpolated over log frequency without a bend (which
 * would ring for longer than a response lasts), faded out over an octave beyond its ends. Finer than a 48th of an octave nothing is known, so neither is what rings for long.
 * @param rate Hz
 * @param size samples, a power of two
 * @returns time zero an eighth of the length from its beginning
 * @throws RangeError for a curve without a phase, or one known nowhere
 */
export function impulseOfCurve(curve: LibraryCurve, rate: number, size: number): ImpulseResponse {
  needWithin('impulseOfCurve', 'rate in Hz', rate, 8000, 768_000);
  if (!curve.hasPhase)
    throw new RangeError('impulseOfCurve: a curve without a phase has no impulse response');
  const known = [...curve.frequency.keys()].filter((n) => Math.hypot(curve.re[n]!, curve.im[n]!) > 0);
  if (known.length < 4) throw new RangeError('impulseOfCurve: the curve is known nowhere');
  const frequency = Float64Array.from(known, (n) => curve.frequency[n]!);
  const logGain = Float64Array.from(known, (n) => Math.log(Math.hypot(curve.re[n]!, curve.im[n]!)));
  const delayS = bulkDelay(curve, known);
  // without its delay a phase turns slowly, and can be followed from point to point
  const phase = new Float64Array(known.length);
  known.forEach((n, i) => {
    const turned = Math.atan2(curve.im[n]!, curve.re[n]!) + 2 * Math.PI * curve.frequency[n]! * delayS;
    const before = i === 0 ? 0 : phase[i - 1]!;
    phase[i] = turned - 2 * Math.PI * Math.round((turned - before) / (2 * Math.PI));
  });
  const bins = Float64Array.from({ length: size / 2 + 1 }, (_, k) => (k * rate) / size);
  const [first, last] = [frequency[0]!, frequency.at(-1)!];
  const within = bins.map((f) => Math.min(last, Math.max(first, f)));
  const [log, turn] = [
    interpolateSmooth(frequency, logGain, within),
    interpolateSmooth(frequency, phase, within),
  ];
  const zero = Math.round(size * AHEAD);
  const later = delayS + zero / rate;
  const re = new Float64Array(bins.length);
  const im = new Float64Array(bins.length);
  // nothing at 0 Hz, where no phase can be, nor at half the rate
  for (let k = 1; k < bins.length - 1; k++) {
    const f = bins[k]!;
    const share =
      f < first
        ? cosineStep(Math.log2(f / first), -FADE_OCTAVES, 0)
        : 1 - cosineStep(Math.log2(f / last), 0, Math.min(FADE_OCTAVES, Math.log2(rate / 2 / last) || 1e-9));
    const size = share * Math.exp(log[k]!);
    const angle = turn[k]! - 2 * Math.PI * f * later;
    re[k] = size * Math.cos(angle);
    im[k] = size * Math.sin(angle);
  }
  return { samples: inverseRealFft({ re, im }), rate, zero };
}

/** The delay at which the phases of a curve agree most: where its impulse response is highest, each octave counting alike. */
function bulkDelay({ frequency, re, im }: LibraryCurve, known: readonly number[]): number {
  const points = known.map((n) => {
    const size = Math.hypot(re[n]!, im[n]!);
    return { f: frequency[n]!, re: re[n]! / size, im: im[n]! / size };
  });
  const sumAt = (delayS: number) => {
    let sum = 0;
    for (const p of points) {
      const turn = 2 * Math.PI * p.f * delayS;
      sum += p.re * Math.cos(turn) - p.im * Math.sin(turn);
    }
    return Math.abs(sum);
  };
  let best = { delayS: 0, sum: sumAt(0) * 1.02 };
  for (let delayS = DELAYS.from; delayS <= DELAYS.to; delayS += DELAYS.step) {
    const sum = sumAt(delayS);
    if (sum > best.sum) best = { delayS, sum };
  }
  return best.delayS;
}
