import {
  fftSizeFor,
  gainOfDb,
  inverseRealFft,
  realFft,
  type ImpulseResponse,
  type RealArray,
} from '../signal/index.js';
import { outputSpectrum, type OutputSettings } from './settings.js';

/** What the old settings took away is given back by no more than this: beyond it there is only noise. */
const MOST_BACK_DB = 30;

/**
 * The impulse response that is to be expected when an output is set otherwise: as measured, less what it did then, times
 * what it will do.
 * @param before what the output did while it was measured, without a FIR
 * @returns longer than `impulse` by the FIR and the delay; `rate` of both must be the processor's
 */
export function predictOutput(
  impulse: ImpulseResponse,
  before: OutputSettings,
  after: OutputSettings,
  fir: RealArray | null,
  rate: number,
): ImpulseResponse {
  if (impulse.rate !== rate)
    throw new RangeError(`predictOutput: response at ${impulse.rate} Hz, output at ${rate} Hz`);
  const later = Math.ceil(((Math.max(0, after.delayMs - before.delayMs) + 20) / 1000) * rate);
  const length = impulse.samples.length + (fir?.length ?? 0) + later;
  const size = fftSizeFor(length + 4096);
  const measured = realFft(impulse.samples, size);
  const [old, next] = [outputSpectrum(before, null, size, rate), outputSpectrum(after, fir, size, rate)];
  const least = gainOfDb(-MOST_BACK_DB) ** 2;
  for (let k = 0; k < measured.re.length; k++) {
    const power = Math.max(old.re[k]! ** 2 + old.im[k]! ** 2, least);
    // next / old
    const [a, b] = [
      (next.re[k]! * old.re[k]! + next.im[k]! * old.im[k]!) / power,
      (next.im[k]! * old.re[k]! - next.re[k]! * old.im[k]!) / power,
    ];
    const [x, y] = [measured.re[k]!, measured.im[k]!];
    measured.re[k] = x * a - y * b;
    measured.im[k] = x * b + y * a;
  }
  return { samples: inverseRealFft(measured).slice(0, length), rate, zero: impulse.zero };
}
