import FFT from 'fft.js';
import type { HalfSpectrum, RealArray } from './types.js';

/** Tables of one size; never written after they were made, so calls may share them. */
interface Plan {
  /** complex transform of half the size: two neighbouring real samples make one complex one */
  half: FFT;
  /** cos and -sin of 2 pi k / size for bins 0 to size/4 */
  cosine: Float64Array;
  sine: Float64Array;
}

const plans = new Map<number, Plan>();

function plan(size: number): Plan {
  if (!(size >= 4) || (size & (size - 1)) !== 0) {
    throw new RangeError(`fft: size must be a power of two, at least 4, got ${size}`);
  }
  let found = plans.get(size);
  if (!found) {
    const turn = (k: number) => (2 * Math.PI * k) / size;
    found = {
      half: new FFT(size / 2),
      cosine: Float64Array.from({ length: size / 4 + 1 }, (_, k) => Math.cos(turn(k))),
      sine: Float64Array.from({ length: size / 4 + 1 }, (_, k) => -Math.sin(turn(k))),
    };
    plans.set(size, found);
  }
  return found;
}

/** Smallest power of two that is at least `length` (and at least 4). */
export function fftSizeFor(length: number): number {
  let size = 4;
  while (size < length) size *= 2;
  return size;
}

/**
 * Spectrum of a real signal, zero-padded to `size`, through a complex transform of half the size (Press et al.,
 * Numerical Recipes, 12.3).
 * @param size power of two, at least the signal's length
 * @throws RangeError when the signal is longer than `size` or `size` is no power of two
 */
export function realFft(signal: RealArray, size = fftSizeFor(signal.length)): HalfSpectrum {
  if (signal.length > size) throw new RangeError(`realFft: ${signal.length} samples do not fit ${size}`);
  const { half, cosine, sine } = plan(size);
  let packed: RealArray = signal;
  if (signal.length < size) {
    packed = new Float64Array(size);
    packed.set(signal);
  }
  const z = new Float64Array(size);
  half.transform(z, packed);
  const m = size / 2;
  const re = new Float64Array(m + 1);
  const im = new Float64Array(m + 1);
  re[0] = z[0]! + z[1]!;
  re[m] = z[0]! - z[1]!;
  for (let k = 1; k <= m / 2; k++) {
    const j = m - k;
    const evenRe = 0.5 * (z[2 * k]! + z[2 * j]!);
    const evenIm = 0.5 * (z[2 * k + 1]! - z[2 * j + 1]!);
    const oddRe = 0.5 * (z[2 * k + 1]! + z[2 * j + 1]!);
    const oddIm = 0.5 * (z[2 * j]! - z[2 * k]!);
    const turnedRe = cosine[k]! * oddRe - sine[k]! * oddIm;
    const turnedIm = cosine[k]! * oddIm + sine[k]! * oddRe;
    re[k] = evenRe + turnedRe;
    im[k] = evenIm + turnedIm;
    re[j] = evenRe - turnedRe;
    im[j] = turnedIm - evenIm;
  }
  return { size, re, im };
}

/**
 * Real signal of a half spectrum; inverse of `realFft`, scaled so that there and back gives the signal.
 * The imaginary parts of bin 0 and bin size/2 are ignored, as a real signal has none.
 */
export function inverseRealFft({ size, re, im }: HalfSpectrum): Float64Array {
  const m = size / 2;
  if (re.length !== m + 1 || im.length !== m + 1) {
    throw new RangeError(
      `inverseRealFft: size ${size} wants ${m + 1} bins, got ${re.length} and ${im.length}`,
    );
  }
  const { half, cosine, sine } = plan(size);
  const z = new Float64Array(size);
  z[0] = 0.5 * (re[0]! + re[m]!);
  z[1] = 0.5 * (re[0]! - re[m]!);
  for (let k = 1; k <= m / 2; k++) {
    const j = m - k;
    const evenRe = 0.5 * (re[k]! + re[j]!);
    const evenIm = 0.5 * (im[k]! - im[j]!);
    const turnedRe = 0.5 * (re[k]! - re[j]!);
    const turnedIm = 0.5 * (im[k]! + im[j]!);
    const oddRe = cosine[k]! * turnedRe + sine[k]! * turnedIm;
    const oddIm = cosine[k]! * turnedIm - sine[k]! * turnedRe;
    z[2 * k] = evenRe - oddIm;
    z[2 * k + 1] = evenIm + oddRe;
    z[2 * j] = evenRe + oddIm;
    z[2 * j + 1] = oddRe - evenIm;
  }
  const signal = new Float64Array(size);
  half.inverseTransform(signal, z);
  return signal;
}

/** Frequency of each bin of a half spectrum, in Hz; size/2 + 1 values. */
export function binFrequencies(size: number, rate: number): Float64Array {
  const out = new Float64Array(size / 2 + 1);
  for (let k = 0; k < out.length; k++) out[k] = (k * rate) / size;
  return out;
}
