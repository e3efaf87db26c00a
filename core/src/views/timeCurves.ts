import type { Arrival } from '../measure/index.js';
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
  const quadrature = inverseRealFft({ re: turnedRe, im: turnedIm });
  let most = 0;
  const energy = Float64Array.from(samples, (v, i) => {
    const e = v * v + quadrature[i]! ** 2;
    most = Math.max(most, e);
    return e;
  });
  return energy.map((e) => 10 * Math.log10(e / most));
}

/** A response around its arrival, as it looks in time. */
export interface TimeCurves {
  /** milliseconds after the arrival of the first of the samples, and between them */
  fromMs: number;
  stepMs: number;
  /** re its largest peak */
  impulse: Float32Array;
  /** re its largest value within what is shown */
  step: Float32Array;
  /** dB */
  energyDb: Float32Array;
}

/** Impulse, step and energy from `fromMs` to `toMs` after the arrival; as much of it as was stored. */
export function timeCurves(
  impulse: ImpulseResponse,
  arrival: Pick<Arrival, 'peakS' | 'peak'> | null,
  { fromMs, toMs }: { fromMs: number; toMs: number },
): TimeCurves {
  const { rate, zero, samples } = impulse;
  const start = zero + (arrival?.peakS ?? 0) * rate;
  const from = Math.max(0, Math.round(start + (fromMs / 1000) * rate));
  const to = Math.min(samples.length, Math.round(start + (toMs / 1000) * rate));
  const peak = Math.abs(arrival?.peak ?? 1);
  const step = Float32Array.from(stepResponse(impulse).subarray(from, to));
  const most = step.reduce((m, v) => Math.max(m, Math.abs(v)), 1e-12);
  return {
    fromMs: (1000 * (from - start)) / rate,
    stepMs: 1000 / rate,
    impulse: Float32Array.from(samples.subarray(from, to), (v) => v / peak),
    step: step.map((v) => v / most),
    energyDb: Float32Array.from(energyTimeDb(impulse).subarray(from, to)),
  };
}
