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
  const [re, im] = [new Float64Array(spectrum.re.length), new Float64Array(spectrum.re.length)];
  // above the octave nothing is left of the lows
  const last = Math.min(re.length - 1, Math.ceil((1.4 * SPLIT_HZ * size) / rate));
  for (let k = 0; k <= last; k++) {
    const share = cosineStep(Math.log((k * rate) / size), Math.log(1.4 * SPLIT_HZ), Math.log(SPLIT_HZ / 1.4));
    re[k] = spectrum.re[k]! * share;
    im[k] = spectrum.im[k]! * share;
  }
  const low = inverseRealFft({ re, im });
  const high = new Float64Array(size);
  for (let i = 0; i < size; i++) high[i] = signal[i]! - low[i]!;
  return [low, high];
}
