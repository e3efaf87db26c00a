import { fftSizeFor, inverseRealFft, realFft } from './fft.js';
import { multiplySpectra } from './halfSpectrum.js';
import type { RealArray } from './types.js';

/**
 * Linear convolution by FFT.
 * @returns a.length + b.length - 1 samples; empty when either is empty
 */
export function convolve(a: RealArray, b: RealArray): Float64Array {
  if (a.length === 0 || b.length === 0) return new Float64Array(0);
  const length = a.length + b.length - 1;
  const size = fftSizeFor(length);
  const product = multiplySpectra(realFft(a, size), realFft(b, size));
  return inverseRealFft(product).slice(0, length);
}
