import { needFinite } from '../limits/index.js';
import {
  binFrequencies,
  delayTrace,
  fftSizeFor,
  fftSizeOf,
  inverseRealFft,
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
  needFinite('deconvolve', 'recording', recording);
  const spectrum = realFft(folded(recording, size), size);
  const { inverse } = sweepSpectra(sweep, size);
  const { re, im } = spectrum;
  for (let k = 0; k < re.length; k++) {
    const [a, b, c, d] = [re[k]!, im[k]!, inverse.re[k]!, inverse.im[k]!];
    re[k] = a * c - b * d;
    im[k] = a * d + b * c;
  }
  return spectrum;
}

/** A recording laid over itself every `size` samples: the same at the bins of that size. */
function folded(recording: RealArray, size: number): RealArray {
  if (recording.length <= size) return recording;
  const out = Float64Array.from(recording.subarray(0, size));
  for (let from = size; from < recording.length; from += size) {
    const end = Math.min(size, recording.length - from);
    for (let i = 0; i < end; i++) out[i] = out[i]! + recording[from + i]!;
  }
  return out;
}

/**
 * The time of a loopback, in samples after the recording's first: `loopbackTime` of its deconvolution, at no finer bins than
 * an impulse needs that comes at most `latest` samples after the start. Every fourth bin of a transform is the transform of a
 * recording that was laid over itself four times.
 * @param size that the whole deconvolution would have, at least as long as the sweep
 */
export function findLoopback(
  loopback: RealArray,
  sweep: Sweep,
  size: number,
  latest: number,
): { samples: number; peak: number } {
  if (loopback.length < sweep.samples.length)
    throw new RangeError(
      `findLoopback: the recording has ${loopback.length} samples, the sweep alone ${sweep.samples.length}`,
    );
  let step = 4;
  while (step > 1 && step * latest > size) step /= 2;
  const short = size / step;
  const { re, im } = realFft(folded(loopback, short), short);
  const { inverse } = sweepSpectra(sweep, size);
  for (let k = 0; k < re.length; k++) {
    const [a, b, c, d] = [re[k]!, im[k]!, inverse.re[step * k]!, inverse.im[step * k]!];
    re[k] = a * c - b * d;
    im[k] = a * d + b * c;
  }
  return loopbackTime({ frequency: binFrequencies(short, 1), re, im }, sweep, short);
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
  const part = (x: Float64Array) => {
    if (step === 1) return x;
    const out = new Float64Array(size / (2 * step) + 1);
    for (let k = 0; k < out.length; k++) out[k] = x[step * k]!;
    return out;
  };
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
