import { cosineStep, fftSizeOf, inverseRealFft, realFft, type ComplexTrace } from '../signal/index.js';

/** Where lows and highs part, Hz; lows ring longer in a room. */
export const SPLIT_HZ = 300;

/**
 * A signal as the sum of its lows and its highs, parted over an octave around 300 Hz without phase; circular.
 * @param signal a power of two long
 * @param spectrum of the signal, where it is known already; not altered
 */
export function splitLowHigh(
  signal: Float64Array,
  rate: number,
  spectrum: ComplexTrace = realFft(signal),
): [low: Float64Array, high: Float64Array] {
  const size = fftSizeOf(spectrum);
  const [re, im] = [spectrum.re.slice(), spectrum.im.slice()];
  for (let k = 0; k < re.length; k++) {
    const share = cosineStep(Math.log((k * rate) / size), Math.log(1.4 * SPLIT_HZ), Math.log(SPLIT_HZ / 1.4));
    re[k] = re[k]! * share;
    im[k] = im[k]! * share;
  }
  const low = inverseRealFft({ re, im });
  return [low, signal.map((v, i) => v - low[i]!)];
}
