import { needFinite } from '../limits/index.js';
import { binFrequencies, inverseRealFft, realFft } from './fft.js';
import type { ComplexTrace } from './types.js';

/**
 * The minimum-phase spectrum with a given magnitude, by folding the real cepstrum (Oppenheim and Schafer, ch. 13).
 * Aliasing of the cepstrum falls with size: take at least 8 times the response's length.
 * @param magnitude linear, bins 0 to size/2, so size/2 + 1 values, all above 0
 * @throws RangeError when a magnitude is 0, negative or NaN, or the count is not 2^n + 1
 */
export function minimumPhase(magnitude: Float64Array): ComplexTrace {
  const logMagnitude = new Float64Array(magnitude.length);
  for (let k = 0; k < magnitude.length; k++) {
    if (!(magnitude[k]! > 0 && magnitude[k]! < Infinity))
      throw new RangeError(
        `minimumPhase: magnitude of bin ${k} must be above 0 and finite, got ${magnitude[k]}`,
      );
    logMagnitude[k] = Math.log(magnitude[k]!);
  }
  return minimumPhaseOfLog(logMagnitude);
}

/** The same from the natural logarithm of the magnitude, finite. */
export function minimumPhaseOfLog(logMagnitude: Float64Array): ComplexTrace {
  needFinite('minimumPhase', 'logarithm of the magnitude', logMagnitude);
  const bins = logMagnitude.length;
  const size = 2 * (bins - 1);
  const re = new Float64Array(bins);
  const im = new Float64Array(bins);
  const folded = inverseRealFft({ re: logMagnitude, im });
  for (let i = 1; i < size / 2; i++) folded[i] = 2 * folded[i]!;
  folded.fill(0, size / 2 + 1);
  const { im: phase } = realFft(folded, size, 1, { frequency: binFrequencies(size, 1), re, im });
  for (let k = 0; k < bins; k++) {
    const magnitude = Math.exp(logMagnitude[k]!);
    const angle = phase[k]!;
    re[k] = magnitude * Math.cos(angle);
    im[k] = magnitude * Math.sin(angle);
  }
  im[0] = 0;
  im[bins - 1] = 0;
  return { frequency: binFrequencies(size, 1), re, im };
}
