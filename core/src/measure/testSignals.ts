import {
  convolve,
  delayTrace,
  exponentialSweep,
  inverseRealFft,
  realFft,
  whiteNoise,
  type Sweep,
} from '../signal/index.js';

/** A recording of a known system for tests: silence, the sweep through `system`, decay, noise of an RMS, a shared latency. */
export function recordThrough(
  system: Float64Array,
  options: {
    sweep?: Sweep;
    silenceS?: number;
    latency?: number;
    noiseRms?: number;
    seed?: number;
    lengthS?: number;
  } = {},
) {
  const { latency = 0, noiseRms = 0, seed = 1, silenceS = 0.5 } = options;
  const sweep =
    options.sweep ?? exponentialSweep({ rate: 48000, from: 20, to: 20000, durationS: 2, levelDbfs: -6 });
  const length = Math.round((options.lengthS ?? silenceS + sweep.samples.length / 48000 + 1.3) * 48000);
  const place = (x: Float64Array) => {
    const out = new Float64Array(1 << 18);
    out.set(x.subarray(0, out.length - silenceS * 48000), silenceS * 48000);
    return inverseRealFft(delayTrace(realFft(out), latency)).subarray(0, length);
  };
  const noise = whiteNoise(length, seed);
  const microphone = place(convolve(sweep.samples, system)).map((v, i) => v + noiseRms * noise[i]!);
  return { sweep, silenceS, rate: 48000, microphone, loopback: place(sweep.samples), length };
}

/** A short random system with an exponential decay: `length` taps, first arrival `delay` samples in. */
export function randomSystem(length: number, delay: number, seed: number): Float64Array {
  const noise = whiteNoise(length, seed);
  const out = new Float64Array(delay + length);
  noise.forEach((v, i) => (out[delay + i] = 0.3 * v * Math.exp((-5 * i) / length)));
  out[delay] = 1;
  return out;
}
