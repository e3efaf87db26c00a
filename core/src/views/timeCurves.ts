import { fftSizeFor, inverseRealFft, realFft, type ImpulseResponse } from '../signal/index.js';

/** The response to a step: running sum of the impulse response. As long as it. */
export function stepResponse({ samples }: ImpulseResponse): Float64Array {
  let sum = 0;
  return Float64Array.from(samples, (v) => (sum += v));
}

/**
 * Energy-time curve: the envelope of the response, from its analytic signal (Heyser 1971).
 * @returns dB re the response's own largest envelope, as long as it; -Infinity where it is 0
 */
export function energyTimeDb({ samples }: ImpulseResponse): Float64Array {
  const size = fftSizeFor(samples.length);
  const { re, im } = realFft(samples, size);
  // the Hilbert transform turns every bin by -90 degrees; mean and half the rate have none
  const turnedRe = im.slice();
  const turnedIm = re.map((v) => -v);
  for (const k of [0, size / 2]) turnedRe[k] = turnedIm[k] = 0;
  const quadrature = inverseRealFft({ size, re: turnedRe, im: turnedIm });
  let most = 0;
  const energy = Float64Array.from(samples, (v, i) => {
    const e = v * v + quadrature[i]! ** 2;
    most = Math.max(most, e);
    return e;
  });
  return energy.map((e) => 10 * Math.log10(e / most));
}
