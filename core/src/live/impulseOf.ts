import { cosineStep, inverseRealFft, type ImpulseResponse } from '../signal/index.js';
import type { CrossSpectra } from './crossSpectra.js';

/** Below this part of its largest power the reference has nothing to compare with, dB. */
const NOTHING_DB = -60;

/**
 * Impulse response of averaged spectra: the inverse transform of Gxy / Gxx, faded out where the reference has nothing.
 * @param beforeS how much of it lies ahead of time zero, seconds
 * @returns as long as the blocks; time zero is where the delay that was set is over
 */
export function impulseOf(
  { frequency, reference, re, im }: CrossSpectra,
  rate: number,
  beforeS = 0.02,
): ImpulseResponse {
  const bins = frequency.length;
  const size = 2 * (bins - 1);
  const zero = Math.min(size - 1, Math.round(beforeS * rate));
  const floor = reference.reduce((a, b) => Math.max(a, b), 0) * 10 ** (NOTHING_DB / 10);
  const h = { re: new Float64Array(bins), im: new Float64Array(bins) };
  for (let k = 1; k < bins - 1; k++) {
    const power = reference[k]!;
    if (!(power > 0)) continue;
    const share = cosineStep(Math.log2(power / floor), -1, 1) / power;
    // later by `zero` samples
    const turn = (-2 * Math.PI * k * zero) / size;
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    h.re[k] = share * (re[k]! * c - im[k]! * s);
    h.im[k] = share * (im[k]! * c + re[k]! * s);
  }
  return { samples: inverseRealFft(h), rate, zero };
}
