import FFT from 'fft.js';
import type { HalfSpectrum, RealArray } from './types.js';

/** A plan holds only tables and is never written after it was made, so calls may share it. */
const plans = new Map<number, FFT>();

function plan(size: number): FFT {
  if (!(size >= 2) || (size & (size - 1)) !== 0) {
    throw new RangeError(`fft: size must be a power of two, at least 2, got ${size}`);
  }
  let found = plans.get(size);
  if (!found) plans.set(size, (found = new FFT(size)));
  return found;
}

/** Smallest power of two that is at least `length` (and at least 2). */
export function fftSizeFor(length: number): number {
  let size = 2;
  while (size < length) size *= 2;
  return size;
}

/**
 * Spectrum of a real signal, zero-padded to `size`.
 * @param size power of two, at least the signal's length
 * @throws RangeError when the signal is longer than `size` or `size` is no power of two
 */
export function realFft(signal: RealArray, size = fftSizeFor(signal.length)): HalfSpectrum {
  if (signal.length > size) throw new RangeError(`realFft: ${signal.length} samples do not fit ${size}`);
  let padded: RealArray = signal;
  if (signal.length < size) {
    padded = new Float64Array(size);
    padded.set(signal);
  }
  const out = new Float64Array(2 * size);
  plan(size).realTransform(out, padded);
  const bins = size / 2 + 1;
  const re = new Float64Array(bins);
  const im = new Float64Array(bins);
  for (let k = 0; k < bins; k++) {
    re[k] = out[2 * k]!;
    im[k] = out[2 * k + 1]!;
  }
  return { size, re, im };
}

/**
 * Real signal of a half spectrum; inverse of `realFft`, scaled so that there and back gives the signal.
 * The imaginary parts of bin 0 and bin size/2 are ignored, as a real signal has none.
 */
export function inverseRealFft({ size, re, im }: HalfSpectrum): Float64Array {
  const half = size / 2;
  if (re.length !== half + 1 || im.length !== half + 1) {
    throw new RangeError(
      `inverseRealFft: size ${size} wants ${half + 1} bins, got ${re.length} and ${im.length}`,
    );
  }
  const full = new Float64Array(2 * size);
  full[0] = re[0]!;
  full[2 * half] = re[half]!;
  for (let k = 1; k < half; k++) {
    full[2 * k] = re[k]!;
    full[2 * k + 1] = im[k]!;
    full[2 * (size - k)] = re[k]!;
    full[2 * (size - k) + 1] = -im[k]!;
  }
  const out = new Float64Array(2 * size);
  plan(size).inverseTransform(out, full);
  const signal = new Float64Array(size);
  for (let i = 0; i < size; i++) signal[i] = out[2 * i]!;
  return signal;
}

/** Frequency of each bin of a half spectrum, in Hz; size/2 + 1 values. */
export function binFrequencies(size: number, rate: number): Float64Array {
  const out = new Float64Array(size / 2 + 1);
  for (let k = 0; k < out.length; k++) out[k] = (k * rate) / size;
  return out;
}
