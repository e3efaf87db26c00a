import {
  delayTrace,
  fftSizeFor,
  fftSizeOf,
  inverseRealFft,
  multiplyTraces,
  realFft,
  sweepSpectra,
  type ComplexTrace,
  type RealArray,
  type Sweep,
} from '../signal/index.js';

/**
 * Spectrum of the response that turned `sweep` into `recording`, within the sweep's band; time zero is the first
 * sample of the recording. Transform it back for an impulse response that is circular over `size`: the linear
 * response at positive times, harmonic k ahead of it by L ln k, wrapping round to the end.
 * @param size power of two, at least as long as the sweep; a longer recording is folded over it, which changes nothing
 *   as long as response and harmonics together are shorter than `size`
 * @throws RangeError when the recording is shorter than the sweep (nothing can be said then)
 */
export function deconvolve(
  recording: RealArray,
  sweep: Sweep,
  size = fftSizeFor(recording.length),
): ComplexTrace {
  if (recording.length < sweep.samples.length) {
    throw new RangeError(
      `deconvolve: the recording has ${recording.length} samples, the sweep alone ${sweep.samples.length}`,
    );
  }
  let folded: RealArray = recording;
  if (recording.length > size) {
    folded = Float64Array.from(recording.subarray(0, size));
    for (let i = size; i < recording.length; i++) folded[i % size] = folded[i % size]! + recording[i]!;
  }
  return multiplyTraces(realFft(folded, size), sweepSpectra(sweep, size).inverse);
}

/**
 * When the loopback's impulse arrives, in samples after the recording's first, to a small fraction of a sample:
 * the highest peak, then the slope of the phase that is left (least squares, weighted by power, middle of the band).
 * @param response from `deconvolve` of the loopback channel
 * @param latest samples after the recording's first at which the impulse can come at most
 */
export function loopbackTime(
  response: ComplexTrace,
  sweep: Sweep,
  latest = fftSizeOf(response) / 4,
): { samples: number; peak: number } {
  // every fourth bin holds all there is to know of an impulse in the first quarter
  const size = fftSizeOf(response);
  const step = 4 * latest <= size ? 4 : 2 * latest <= size ? 2 : 1;
  const part = (x: Float64Array) =>
    Float64Array.from({ length: size / (2 * step) + 1 }, (_, k) => x[step * k]!);
  const impulse = inverseRealFft({
    re: part(response.re),
    im: part(response.im),
  });
  let at = 0;
  for (let i = 1; i < impulse.length; i++) if (Math.abs(impulse[i]!) > Math.abs(impulse[at]!)) at = i;
  const sign = Math.sign(impulse[at]!);
  const { re, im } = delayTrace(response, -at);
  const bin = (f: number) => Math.round((f * size) / sweep.rate);
  const [from, to] = [bin(Math.max(sweep.from, 200)), bin(Math.min(sweep.to, 8000))];
  let up = 0;
  let down = 0;
  for (let k = from; k <= to; k++) {
    const power = re[k]! ** 2 + im[k]! ** 2;
    up += power * k * Math.atan2(sign * im[k]!, sign * re[k]!);
    down += power * k * k;
  }
  const slope = down > 0 ? up / down : 0;
  return { samples: at - (slope * size) / (2 * Math.PI), peak: impulse[at]! };
}

/** A circular impulse response with its time zero at index 0, `timeZero` samples (may be fractional) into the recording. */
export const impulseFrom = (response: ComplexTrace, timeZero: number): Float64Array =>
  inverseRealFft(delayTrace(response, -timeZero));
