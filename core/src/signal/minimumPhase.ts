import { binFrequencies, inverseRealFft, realFft } from './fft.js';
import type { ComplexTrace } from './types.js';

/**
 * The minimum-phase spectrum with a given magnitude, by folding the real cepstrum (Oppenheim and Schafer, ch. 13).
 * Aliasing of the cepstrum falls with size: take at least 8 times the response's length.
 * @param magnitude linear, bins 0 to size/2, so size/2 + 1 values, all above 0
 * @throws RangeError when a magnitude is 0, negative or NaN, or the count is not 2^n + 1
 */
export function minimumPhase(magnitude: Float64Array): ComplexTrace {
  const bins = magnitude.length;
  const size = 2 * (bins - 1);
  const logMagnitude = new Float64Array(bins);
  for (let k = 0; k < bins; k++) {
    if (!(magnitude[k]! > 0))
      throw new RangeError(`minimumPhase: magnitude of bin ${k} must be above 0, got ${magnitude[k]}`);
    logMagnitude[k] = Math.log(magnitude[k]!);
  }
  const cepstrum = inverseRealFft({ re: logMagnitude, im: new Float64Array(bins) });
  const folded = new Float64Array(size);
  folded[0] = cepstrum[0]!;
  folded[size / 2] = cepstrum[size / 2]!;
  for (let i = 1; i < size / 2; i++) folded[i] = 2 * cepstrum[i]!;
  const { im: phase } = realFft(folded, size);
  const re = new Float64Array(bins);
  const im = new Float64Array(bins);
  for (let k = 0; k < bins; k++) {
    re[k] = magnitude[k]! * Math.cos(phase[k]!);
    im[k] = magnitude[k]! * Math.sin(phase[k]!);
  }
  im[0] = 0;
  im[bins - 1] = 0;
  return { frequency: binFrequencies(size, 1), re, im };
}
