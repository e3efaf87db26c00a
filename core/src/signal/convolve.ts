import { needFinite } from '../limits/index.js';
import { fftSizeFor, inverseRealFft, realFft } from './fft.js';
import { multiplyTraces } from './complexTrace.js';
import type { RealArray } from './types.js';

/**
 * Linear convolution by FFT.
 * @returns a.length + b.length - 1 samples; empty when either is empty
 */
export function convolve(a: RealArray, b: RealArray): Float64Array {
  if (a.length === 0 || b.length === 0) return new Float64Array(0);
  needFinite('convolve', 'signal', a);
  needFinite('convolve', 'response', b);
  const length = a.length + b.length - 1;
  const size = fftSizeFor(length);
  const product = multiplyTraces(realFft(a, size), realFft(b, size));
  return inverseRealFft(product).slice(0, length);
}

/**
 * Linear convolution of a long signal with a short response, block by block (overlap and add, Oppenheim and Schafer, 8.7): the
 * same as `convolve`, in memory that does not grow with the transform of the whole.
 */
export function convolveLong(signal: RealArray, response: RealArray): Float64Array {
  if (signal.length === 0 || response.length === 0) return new Float64Array(0);
  needFinite('convolveLong', 'signal', signal);
  needFinite('convolveLong', 'response', response);
  const size = fftSizeFor(Math.max(4 * response.length, 65536));
  const block = size - response.length + 1;
  if (signal.length <= block) return convolve(signal, response);
  const spectrum = realFft(response, size);
  const out = new Float64Array(signal.length + response.length - 1);
  for (let from = 0; from < signal.length; from += block) {
    const part = inverseRealFft(multiplyTraces(realFft(signal.subarray(from, from + block), size), spectrum));
    const end = Math.min(size, out.length - from);
    for (let i = 0; i < end; i++) out[from + i] = out[from + i]! + part[i]!;
  }
  return out;
}
